import { SectionNav } from "../../../ui/section-nav";
import { reviewParts } from "../../_frame/places";

/** The parts of Review, one line under the top bar. */
export function ReviewNav({ here }: Readonly<{ here: (typeof reviewParts)[number]["id"] }>) {
  return <SectionNav label="Review" parts={reviewParts} here={here} />;
}
