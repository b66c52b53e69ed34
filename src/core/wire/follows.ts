/**
 * What of a channel may change while somebody looks at it, by the first part of the API's addresses. Commands and drafts are no
 * part of it: how games stand, and who edits what, is told on its own.
 */
export const storedAreas = [
  "games",
  "overlays",
  "props",
  "emotes",
  "channel",
  "chat",
  "events",
  "studio",
  "operators",
  "remotes",
  "account",
  "review",
  "people",
] as const;
export type StoredArea = (typeof storedAreas)[number];
const untold = /\/(?:command|draft)$/;

/** The area that an address changes; null where nothing of it is kept, or is told otherwise. */
export function areaOf(path: string): StoredArea | null {
  const first = path.replace(/^\/api(?=\/)/, "").split("/")[1] ?? "";
  return untold.test(path) ? null : (storedAreas.find((a) => a === first) ?? null);
}

const follows: readonly (readonly [page: string, areas: readonly StoredArea[]])[] = [
  ["/prepare/overlays", ["overlays", "games", "props"]],
  ["/prepare/games", ["overlays", "games", "emotes", "props"]],
  ["/prepare/props", ["props"]],
  ["/prepare/emotes", ["emotes"]],
  ["/prepare/connections", ["chat", "events", "studio", "channel"]],
  ["/prepare", ["games", "overlays"]],
  ["/account", ["account", "operators", "remotes", "channel"]],
  ["/review", ["review", "people", "games"]],
];
/** Whether a page shows something of an area, and so is read again when it changes. */
export const isFollowed = (page: string, area: string): boolean =>
  follows.find(([start]) => page === start || page.startsWith(`${start}/`))?.[1].some((a) => a === area) === true;
/** Pages on which past shows are seen: they change when a show ends. */
export const showsPast = (page: string): boolean => page === "/review" || page.startsWith("/review/");
