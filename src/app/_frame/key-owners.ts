import { buttonsOf } from "../../core/games/buttons";
import { gameOf } from "../../core/games/registry";

/**
 * The single keys of what is always there, on every screen and in the booth, by the id of the action: in one
 * place, so that whoever chooses a key for a cue hears who has it. `by` stands after “is used for”.
 */
export const fixedKeys = {
  hush: { key: ".", by: "hush" },
  "go./prepare": { key: "1", by: "going to Prepare" },
  "go./rehearse": { key: "2", by: "going to Rehearse" },
  "go./run": { key: "3", by: "going to Run" },
  "go./review": { key: "4", by: "going to Review" },
  surface: { key: "n", by: "the light or dark screen" },
  "booth.next-game": { key: "g", by: "the next game in the booth" },
  "focus.hide": { key: "v", by: "hiding a game in the booth" },
  "focus.switch": { key: "o", by: "starting and stopping a game in the booth" },
  "talk.speak": { key: "/", by: "speaking in chat" },
  "talk.pause": { key: "p", by: "holding the talk still, and publishing" },
  "queue.skip": { key: "k", by: "skipping what plays" },
  "tape.now": { key: "t", by: "bringing the tape to now" },
  "tape.closer": { key: "+", by: "looking closer at the tape" },
  "tape.wider": { key: "-", by: "seeing more of the tape" },
  "tape.next": { key: "f", by: "starting what comes next" },
  "rehearsal.pause": { key: "0", by: "letting a rehearsal stand and go on" },
  "waiting.yes": { key: "y", by: "saying yes to what waits" },
  "waiting.no": { key: "x", by: "saying no to what waits" },
} as const satisfies Readonly<Record<string, Readonly<{ key: string; by: string }>>>;
export const fixedKey = (id: keyof typeof fixedKeys): string => fixedKeys[id].key;

type Facts = Readonly<{
  /** What was chosen in this browser, by the id of the action; null where a key was turned off. */
  chosen: Readonly<Record<string, string | null>>;
  games: readonly Readonly<{ kind: string }>[];
}>;
/** What a key is used for beside cues, in the booth or everywhere; null when it is free. */
export function keyUse(key: string, { chosen, games }: Facts): string | null {
  const has = (id: string, usual: string | undefined): boolean => (Object.hasOwn(chosen, id) ? chosen[id] : usual) === key;
  for (const [id, { key: usual, by }] of Object.entries(fixedKeys)) if (has(id, usual)) return by;
  for (const kind of new Set(games.map((g) => g.kind)))
    for (const [name, action] of buttonsOf(kind))
      if (has(`game.${kind}.${name}`, action.key)) return `${gameOf(kind)?.name ?? kind}: ${action.label.toLowerCase()}`;
  return null;
}
