import type { ChannelId } from "../../core/kernel/ids";

/** What a platform tells of somebody, found by their name. */
export type Profile = Readonly<{
  name: string;
  /** Address of their page on the platform; empty when it tells none. */
  page: string;
  /** What they were about last, and what they say of themselves; empty when it tells none. */
  topic: string;
  about: string;
  /** Their picture as it was sent; null for none, `away` when there is one that did not come in time. */
  picture: Buffer | "away" | null;
}>;
/**
 * Finds people on a platform. `none`: the platform says that there is nobody of that name. `away`: it did not answer in time,
 * or not with anything that can be read. Never throws, never takes longer than a few seconds.
 */
export type Found = Readonly<{ is: "found"; profile: Profile }> | Readonly<{ is: "none" }> | Readonly<{ is: "away" }>;
export type Profiles = Readonly<{
  /** The platform has two seconds to answer, or as long as is said; the picture never holds up what else it tells. */
  find: (name: string, patienceMs?: number) => Promise<Found>;
}>;

/** What is known of somebody, and how old that is. `picture` is a small square WebP; null where there is none to be shown. */
export type Face = Readonly<{
  profile: Omit<Profile, "picture"> | null;
  picture: Buffer | null;
  atMs: number;
  /** The platform did not answer, and nothing is known from before. */ away?: boolean;
}>;
export type FaceStore = Readonly<{
  face: (id: ChannelId, key: string) => Promise<Face | null>;
  saveFace: (id: ChannelId, key: string, face: Face) => Promise<void>;
}>;
