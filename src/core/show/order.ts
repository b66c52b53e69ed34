import type { Plan, PlanItem } from "./plan";

export const inOrder = (items: Plan): readonly PlanItem[] =>
  items
    .map((item, i) => ({ item, i }))
    .sort((a, b) => a.item.atMin - b.item.atMin || a.i - b.i)
    .map(({ item }) => item);
