/** What chat can be told by a draw: when, the variables it may use, and the usual words. The viewer stands in front of what answers one. */
const replies = {
  opened: {
    when: "It is opened",
    variables: ["title", "subtitle", "word", "most", "price", "points", "promise"],
    usual: "{title} is open: write {word} to enter. Promised by {promise}.",
  },
  entered: { when: "Somebody is in", variables: ["tickets", "most", "people"], usual: "ticket {tickets} of {most}" },
  guessed: { when: "Somebody named a number", variables: ["guess", "people"], usual: "{guess} it is" },
  full: { when: "Somebody holds all tickets they may", variables: ["most"], usual: "you hold all {most} tickets" },
  "not-open": { when: "Nothing is open", variables: [], usual: "nothing is open to enter" },
  late: { when: "A message came just after the lock", variables: ["seconds"], usual: "it was locked {seconds} s before your message" },
  "too-poor": {
    when: "Somebody can’t pay",
    variables: ["price", "has", "points"],
    usual: "that costs {price} {points}, and you have {has}",
  },
  role: { when: "It is not for them", variables: [], usual: "this draw is not for everybody" },
  barred: { when: "They are barred", variables: [], usual: "you can’t enter this channel’s draws" },
  "won-lately": { when: "They won lately", variables: [], usual: "you won lately: again in 2 shows" },
  "not-chatted": {
    when: "They have not written lately",
    variables: ["minutes"],
    usual: "only who wrote within the last {minutes} minutes can enter",
  },
  "how-many": { when: "They ask for a number of tickets there can’t be", variables: ["most"], usual: "say how many: 1 to {most}" },
  "say-number": { when: "They named no number", variables: ["from", "to"], usual: "say a number from {from} to {to}" },
  "no-number": { when: "What they wrote is no number", variables: ["from", "to"], usual: "that is no number: say one from {from} to {to}" },
  "number-range": { when: "Their number is out of range", variables: ["from", "to"], usual: "the numbers go from {from} to {to}" },
  "no-tries": { when: "They named a number already", variables: ["tries", "guess"], usual: "you named {guess}, and that stands" },
  chance: {
    when: "Somebody asks for their chance",
    variables: ["chance", "tickets"],
    usual: "your chance is {chance}, with {tickets} tickets",
  },
  "not-in-yet": { when: "They ask for their chance and are not in", variables: ["word"], usual: "you are not in: write {word}" },
  locked: {
    when: "It is locked",
    variables: ["title", "people", "tickets", "list", "shakers"],
    usual: "{title} is locked: {people} viewers, {tickets} tickets. List {list}.",
  },
  winner: { when: "Somebody wins", variables: ["viewer", "prize", "title", "seconds"], usual: "{viewer} wins {prize}." },
  over: { when: "It is over", variables: ["title", "round"], usual: "{title} is over. Anybody can check it: round {round}." },
} as const;
export type ReplyKey = keyof typeof replies;
/** In the order in which they come to pass. */
export const replyKeys = Object.keys(replies) as [ReplyKey, ...ReplyKey[]];
export const replyOf = (key: ReplyKey): Readonly<{ when: string; variables: readonly string[]; usual: string }> => replies[key];
