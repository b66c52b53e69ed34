export const roles = ["viewer", "member", "guest", "moderator", "streamer"] as const;

export type Role = (typeof roles)[number];

export const roleWords: Readonly<Record<Role, string>> = {
  viewer: "everyone",
  member: "members",
  guest: "guests",
  moderator: "moderators",
  streamer: "the streamer",
};

export type Viewer = Readonly<{ id: string; name: string; roles: readonly Role[] }>;

/** What viewers read in place of an operator's login name. */
export const theHouse = "the house";
/** Who acts at the desk, as viewers may read it: a name that they chose or “the house”, and what they are here. */
export type House = Readonly<{ name: string; role: "owner" | "moderator" }>;
/** What viewers read of who gave a command or fired a cue. */
export const publicName = ({
  by,
  house,
  signedIn = false,
}: Readonly<{ by: string; house?: House | undefined; signedIn?: boolean | undefined }>): string =>
  house?.name ?? (signedIn ? theHouse : by);

export const nameOf = (viewer: Viewer | null): string => viewer?.name ?? "someone";
