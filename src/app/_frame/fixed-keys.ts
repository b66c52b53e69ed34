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
