import type { ChannelId } from "../../core/kernel/ids";
import type { Refusal, Result } from "../../core/kernel/refusal";

/** Moving pictures that are to be made, each a row that outlives whoever makes it. */
export const mediaPurposes = ["new", "shape", "replace", "clip"] as const;
export type MediaPurpose = (typeof mediaPurposes)[number];
export type MediaState = "waiting" | "working" | "done" | "failed" | "dropped";
export type StoredFile = Readonly<{ sha: string; mime: string; bytes: Buffer }>;
/** One that lies on the disk: it is read in parts. */
export type FileOnDisk = Readonly<{ sha: string; mime: string; path: string; size: number }>;

export type NewMediaJob = Readonly<{
  id: string;
  channel: ChannelId;
  purpose: MediaPurpose;
  /** What it is made for: a prop's id, or the game and number of a clip. */
  about: string;
  name: string;
  request: unknown;
  /** Null where it is yet to be fetched. */
  sourceSha: string | null;
  /** What is waited for on air goes first. */
  urgent: boolean;
}>;
export type MediaJob = NewMediaJob &
  Readonly<{ state: MediaState; share: number; tries: number; createdMs: number; why: Refusal | null; result: unknown }>;

export type MediaStore = Readonly<{
  putFile: (file: StoredFile | FileOnDisk, nowMs: number) => Promise<void>;
  /** Its size, and its bytes part by part from `from` up to, and without, `to`; null when there is none. */
  file: (
    sha: string,
  ) => Promise<Readonly<{ mime: string; size: number; read: (from: number, to: number) => AsyncGenerator<Buffer> }> | null>;
  /** Refused: too many wait already. One of the same id is taken once. */
  add: (job: NewMediaJob, nowMs: number) => Promise<Result<null>>;
  /** Those of a channel that an operator should know of: what waits and works, and what failed lately. */
  jobs: (channel: ChannelId, sinceMs: number) => Promise<readonly MediaJob[]>;
  /** How many of a channel have been waiting since before then, while none of it is at work. */
  stalled: (channel: ChannelId, beforeMs: number) => Promise<number>;
  /** The next one, for whoever asks first; those whose maker fell silent are given out again, a few times. */
  claim: (owner: string, nowMs: number, leaseMs: number) => Promise<MediaJob | null>;
  /** How far it is; false when it is not its maker's any more. */
  beat: (id: string, owner: string, share: number, nowMs: number, leaseMs: number) => Promise<boolean>;
  end: (id: string, owner: string, done: Result<unknown>, nowMs: number) => Promise<boolean>;
  /** Nobody wants it any more: named by its id, or by what it is made for. */
  drop: (channel: ChannelId, id: string, nowMs: number) => Promise<boolean>;
  /** What games ordered, that has ended, and that they have not been told of. */
  untold: (channel: ChannelId) => Promise<readonly MediaJob[]>;
  told: (id: string) => Promise<void>;
}>;
