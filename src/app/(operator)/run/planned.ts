import { inOrder } from "../../../core/show/order";
import type { PlanItem } from "../../../core/show/plan";
import type { ShowView } from "../../_frame/show";
import { minute } from "./tape-layout";

/** When each thing still planned is due: after the show's beginning, or as if it began now. */
export function plannedOf(show: ShowView, nowMs: number): readonly Readonly<{ item: PlanItem; dueMs: number }>[] {
  const since = show.show?.sinceMs ?? nowMs;
  const doneAt = new Map(show.done.map((d) => [d.item, d.atMs]));
  const due = new Map<string, number>();
  const items = inOrder(show.plan.items);
  for (let round = 0; round < 3; round += 1)
    for (const item of items) {
      const { starts } = item;
      due.set(
        item.id,
        starts.how === "after"
          ? (doneAt.get(starts.item) ?? due.get(starts.item) ?? since + item.atMin * minute) + starts.delayMin * minute
          : since + item.atMin * minute,
      );
    }
  return items.filter((item) => !doneAt.has(item.id)).map((item) => ({ item, dueMs: due.get(item.id) ?? since }));
}
