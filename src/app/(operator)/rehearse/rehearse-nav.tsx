import { SectionNav } from "../../../ui/section-nav";
import { rehearseParts } from "../../_frame/places";

/** The parts of Rehearse, one line under the top bar. */
export function RehearseNav({ here }: Readonly<{ here: (typeof rehearseParts)[number]["id"] }>) {
  return <SectionNav label="Rehearse" parts={rehearseParts} here={here} />;
}
