import type { Field, Fields } from "./fields";

export const entriesOf = (fields: Fields): readonly (readonly [string, Field])[] => Object.entries(fields);
/** The number somebody types behind the action's word: the first that is asked for; null when there is none. */
export const numberField = (fields: Fields): readonly [string, Extract<Field, { kind: "amount" | "whole" }>] | null => {
  for (const [name, field] of entriesOf(fields)) if (field.kind === "amount" || field.kind === "whole") return [name, field];
  return null;
};
/** The text somebody writes behind the action's word: the first that is asked for; null when there is none. */
export const textField = (fields: Fields): readonly [string, Extract<Field, { kind: "text" }>] | null => {
  for (const [name, field] of entriesOf(fields)) if (field.kind === "text") return [name, field];
  return null;
};
/** What an action begins with where nobody said anything yet. */
export const startOf = (fields: Fields): Record<string, unknown> =>
  Object.fromEntries(entriesOf(fields).flatMap(([name, field]) => (field.start === undefined ? [] : [[name, field.start]])));
