/**
 * Every place of the operator's side, once: the navigation, the search and the keys are made from it. `words` are what
 * people call it beside its name.
 */
export type PlaceGroup = "screen" | "reactions" | "shop" | "library" | "show" | "connections";
export const prepareGroups: readonly Readonly<{ id: PlaceGroup; name: string }>[] = [
  { id: "screen", name: "On screen" },
  { id: "reactions", name: "Reactions" },
  { id: "shop", name: "Shop" },
  { id: "library", name: "Library" },
  { id: "show", name: "Show" },
  { id: "connections", name: "Connections" },
];
type InPrepare = Readonly<{ id: string; path: string; name: string; group: PlaceGroup; about: string; words: string }>;
export const prepareParts = [
  { id: "games", path: "/prepare", name: "Games", group: "screen", about: "what stands on the picture", words: "game add new start stop" },
  {
    id: "overlays",
    path: "/prepare/overlays",
    name: "Overlays",
    group: "screen",
    about: "stages, their links, where games stand",
    words: "overlay stage browser source link layout scene arrange url css",
  },
  {
    id: "rules",
    path: "/prepare/rules",
    name: "Rules",
    group: "reactions",
    about: "what answers what happens",
    words: "rule alert reaction trigger what if tier timer hidden words currency",
  },
  {
    id: "cues",
    path: "/prepare/cues",
    name: "Cues",
    group: "reactions",
    about: "effects fired by hand",
    words: "cue button hotkey key trigger address effect",
  },
  {
    id: "commands",
    path: "/prepare/commands",
    name: "Commands",
    group: "reactions",
    about: "chat words that answer",
    words: "command chat word counter bot answer",
  },
  {
    id: "rewards",
    path: "/prepare/rewards",
    name: "Rewards",
    group: "shop",
    about: "what viewers buy",
    words: "reward shop price redeem sell stock cooldown",
  },
  {
    id: "points",
    path: "/prepare/points",
    name: "Points",
    group: "shop",
    about: "how they are earned and given",
    words: "point currency loyalty earn balance presence",
  },
  {
    id: "props",
    path: "/prepare/props",
    name: "Pictures and sounds",
    group: "library",
    about: "what can be shown and heard",
    words: "prop picture sound image audio upload file library",
  },
  {
    id: "emotes",
    path: "/prepare/emotes",
    name: "Emotes",
    group: "library",
    about: "the channel’s own",
    words: "emote emoji upload picture",
  },
  {
    id: "show",
    path: "/prepare/show",
    name: "Rundown",
    group: "show",
    about: "what is planned, and moderators’ words",
    words: "rundown plan schedule show moderator command word",
  },
  {
    id: "connections",
    path: "/prepare/connections",
    name: "Chat and events",
    group: "connections",
    about: "where Izzam listens",
    words: "connection chat server irc event webhook platform practice",
  },
  {
    id: "data",
    path: "/prepare/connections/data",
    name: "Data",
    group: "connections",
    about: "what is kept, and for how long",
    words: "data retention keep export log backup privacy",
  },
] as const satisfies readonly InPrepare[];
export type PreparePart = (typeof prepareParts)[number]["id"];

export const reviewParts = [
  { id: "shows", path: "/review", name: "Past shows", about: "what happened when", words: "review past show history evening" },
  {
    id: "rounds",
    path: "/review/rounds",
    name: "Rounds and prizes",
    about: "what was drawn, spun and asked; prizes to hand over",
    words: "round draw giveaway lottery question outcome spin winner prize proof export csv",
  },
  { id: "points", path: "/review/points", name: "Points made and spent", about: "charts", words: "point chart statistics economy" },
  { id: "sales", path: "/review/sales", name: "Sales", about: "what was bought, refunds", words: "sale refund bought redemption history" },
  {
    id: "people",
    path: "/review/people",
    name: "People",
    about: "viewers, their points, muting and forgetting",
    words: "viewer people person mute unmute ban forget merge import balance",
  },
] as const;

export const rehearseParts = [
  {
    id: "rehearsal",
    path: "/rehearse",
    name: "Rehearsal",
    about: "a show on copies, with a crowd; the check-list before going live",
    words: "rehearsal rehearse dry run test crowd storm simulate practice checklist check list ready before live replay",
  },
  {
    id: "lab",
    path: "/rehearse/lab",
    name: "Odds lab",
    about: "what a setting will do, over thousands of evenings",
    words: "test lab simulate simulation odds chance what if probability forecast balance",
  },
] as const;

/** Places outside Prepare and Review. */
export const otherPlaces = [
  { path: "/run", name: "Booth", about: "the screen for the show", words: "booth run live show tape talk" },
  { path: "/run?pair=phone", name: "Pair a phone", about: "the remote", words: "phone remote mobile pair qr code" },
  {
    path: "/account",
    name: "Account",
    about: "password, sessions, moderators",
    words: "account password session moderator invite operator channel name rename sign out",
  },
] as const;
