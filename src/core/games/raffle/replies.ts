/** What chat can be told by a draw, and the variables each may use: the viewer stands in front of what answers one. */
const replies = {
  entered: ["tickets", "most", "people"],
  guessed: ["guess", "people"],
  full: ["most"],
  "not-open": [],
  late: ["lateS"],
  "too-poor": ["price", "has", "points"],
  role: [],
  barred: [],
  "won-lately": [],
  "not-chatted": ["minutes"],
  "how-many": ["most"],
  "say-number": ["from", "to"],
  "no-number": ["from", "to"],
  "number-range": ["from", "to"],
  "no-tries": ["tries", "guess"],
  chance: ["chance", "tickets"],
  "not-in-yet": ["word"],
  opened: ["title", "subtitle", "word", "most", "price", "points", "promise"],
  locked: ["title", "people", "tickets", "list", "shakers"],
  winner: ["viewer", "prize", "title", "seconds"],
  over: ["title", "round"],
} as const;
export type ReplyKey = keyof typeof replies;
/** In the order in which they come to pass. */
export const replyKeys = Object.keys(replies) as [ReplyKey, ...ReplyKey[]];
export const variablesOfReply = (key: ReplyKey): readonly string[] => replies[key];

/** When each is told, for who edits them. */
export const whenReplied: Readonly<Record<ReplyKey, string>> = {
  opened: "It is opened",
  entered: "Somebody is in",
  guessed: "Somebody named a number",
  full: "Somebody holds all tickets they may",
  "not-open": "Nothing is open",
  late: "A message came just after the lock",
  "too-poor": "Somebody can’t pay",
  role: "It is not for them",
  barred: "They are barred",
  "won-lately": "They won lately",
  "not-chatted": "They have not written lately",
  "how-many": "They asked for a number of tickets there can’t be",
  "say-number": "They named no number",
  "no-number": "What they wrote is no number",
  "number-range": "Their number is out of range",
  "no-tries": "They named a number already",
  chance: "Somebody asks for their chance",
  "not-in-yet": "Somebody asks for their chance and is not in",
  locked: "It is locked",
  winner: "Somebody wins",
  over: "It is over",
};
