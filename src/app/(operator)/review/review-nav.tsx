import { SectionNav } from "../../../ui/section-nav";

const parts = [
  { id: "shows", path: "/review", name: "Shows" },
  { id: "points", path: "/review/points", name: "Points" },
  { id: "sales", path: "/review/sales", name: "Sales" },
  { id: "people", path: "/review/people", name: "People" },
] as const;

/** The parts of Review, one line under the top bar. */
export function ReviewNav({ here }: Readonly<{ here: (typeof parts)[number]["id"] }>) {
  return <SectionNav label="Review" parts={parts} here={here} />;
}
