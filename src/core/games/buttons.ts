import { numberField, startOf } from "../module/field-of";
import type { GameAction, Row } from "../module/game";
import type { Command } from "../signals/signal";
import { frontOf } from "./fronts";

export type NamedAction = readonly [name: string, action: GameAction];
/** The actions of a kind of game that stand as buttons. */
export const buttonsOf = (kind: string): readonly NamedAction[] =>
  Object.entries(frontOf(kind)?.actions ?? {}).filter(([, action]) => action.onlyThere !== true && action.byHand !== false);
/** Those of them that stand there as things are, by the operators' view. */
export const buttonsNow = (kind: string, view: Row): readonly NamedAction[] =>
  buttonsOf(kind).filter(([, action]) => action.stepwise !== true || action.can?.(view) !== false);
/** What is asked for before it is done: an amount that is the point of it. */
export const asksFor = (action: GameAction) => {
  const number = numberField(action.input);
  return number?.[1].kind === "amount" ? number : null;
};
export const commandOf = ([name, action]: NamedAction, input: Readonly<Record<string, unknown>> = {}): Command => ({
  ...startOf(action.input),
  ...input,
  do: name,
});
/** The same with an amount, where it takes one. */
export function withAmount(named: NamedAction, amount: number): Command {
  const [name = ""] = numberField(named[1].input) ?? [];
  return commandOf(named, name === "" ? {} : { [name]: amount });
}
