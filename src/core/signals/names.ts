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

export const nameOf = (viewer: Viewer | null): string => viewer?.name ?? "someone";
