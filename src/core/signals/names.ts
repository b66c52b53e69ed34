/**
 * Everything that happens on a channel arrives as a signal. `seq` is given on arrival, per channel, and
 * settles every tie; `atMs` is UTC milliseconds at that moment. `id` is unique per source.
 */
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

export const nameOf = (viewer: Viewer | null): string => viewer?.name ?? "someone";
