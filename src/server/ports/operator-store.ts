import type { Dress } from "../../core/dress/dress";
import type { ChannelId, OperatorId } from "../../core/kernel/ids";
import type { Result } from "../../core/kernel/refusal";
import type { EventStore } from "./event-store";
import type { PointsStore } from "./points-store";
import type { ShowStore } from "./show-store";
import type { ChatLogStore } from "./chat-log-store";
import type { LabStore } from "./lab-store";
import type { MediaStore } from "./media-store";
import type { PropStore } from "./prop-store";
import type { OutsideShowStore } from "./outside-show-store";
import type { ReviewStore } from "./review-store";
import type { Place, Sprite } from "../../core/wire/messages";

/** What the operator side needs of the truth: accounts, drafts and versions, links, emotes, connections. */
export type OperatorRole = "owner" | "moderator";
export type Session = Readonly<{
  tokenHash: string;
  operatorId: OperatorId;
  login: string;
  /** What viewers read of them; empty for “the house”. */
  publicName: string;
  role: OperatorRole;
  channelId: ChannelId;
  channelName: string;
  demo: boolean;
  /** A paired phone: it may act in the booth, and nothing else. */
  remote: boolean;
}>;
export type Remote = Readonly<{ id: string; label: string; by: string; sinceMs: number }>;
export type OpenSession = Readonly<{ id: string; label: string; kind: "desk" | "phone"; sinceMs: number; tokenHash: string }>;
export type Operator = Readonly<{ id: OperatorId; login: string; role: OperatorRole; demo: boolean; sessions: number; sinceMs: number }>;
export type Account = Readonly<{
  id: OperatorId;
  login: string;
  passwordHash: string;
  channelId: ChannelId;
  role: OperatorRole;
  /** One of the demo's, whose password everybody knows. */
  demo: boolean;
}>;

export type AccountStore = Readonly<{
  /** What viewers read of an operator; empty for “the house”. */
  setPublicName: (operator: OperatorId, channel: ChannelId, name: string) => Promise<void>;
  /** The sign-in names of everybody who helps to run a channel. */
  logins: (channel: ChannelId) => Promise<readonly string[]>;
  anyOperator: () => Promise<boolean>;
  /** By name, without regard to case or accents. */
  account: (login: string) => Promise<Account | null>;
  demoAccount: (role: OperatorRole) => Promise<Account | null>;
  /** The very first owner and channel; refused when there is an operator already. */
  createFirst: (
    first: Readonly<{
      operatorId: OperatorId;
      login: string;
      passwordHash: string;
      channelId: ChannelId;
      channelName: string;
      salt: number;
      nowMs: number;
    }>,
  ) => Promise<Result<null>>;
  openSession: (
    tokenHash: string,
    account: Account,
    at: Readonly<{ kind: "full" | "remote"; id: string; label: string; nowMs: number; expiresMs: number }>,
  ) => Promise<void>;
  /** Where somebody is signed in, phones of theirs included; newest first. */
  sessions: (operator: OperatorId, nowMs: number) => Promise<readonly OpenSession[]>;
  /** Ends one session of an operator; with null, all but the one named by its token's hash. */
  endSessions: (operator: OperatorId, id: string | null, butTokenHash: string) => Promise<number>;
  passwordHash: (operator: OperatorId) => Promise<string | null>;
  /** A password of one's own: an account of the demo is one no longer. */
  setPassword: (operator: OperatorId, hash: string) => Promise<void>;
  operators: (channel: ChannelId, nowMs: number) => Promise<readonly Operator[]>;
  /** Their membership and all their sessions on this channel end. The last owner stays. */
  removeOperator: (channel: ChannelId, operator: OperatorId) => Promise<Result<Readonly<{ login: string }>>>;
  renameChannel: (channel: ChannelId, name: string) => Promise<void>;
  invite: (channel: ChannelId, invite: Readonly<{ tokenHash: string; by: string; nowMs: number; expiresMs: number }>) => Promise<void>;
  /** Invitations that can still be used. */
  invites: (channel: ChannelId, nowMs: number) => Promise<readonly Readonly<{ by: string; sinceMs: number; untilMs: number }>[]>;
  endInvites: (channel: ChannelId) => Promise<number>;
  /** Whose channel an invitation is for; null when it is unknown, used or too old. */
  invited: (tokenHash: string, nowMs: number) => Promise<Readonly<{ channelId: ChannelId; channelName: string }> | null>;
  /** Uses an invitation up: a new moderator. Refused: used meanwhile, or the name is taken. */
  join: (
    tokenHash: string,
    operator: Readonly<{ id: OperatorId; login: string; passwordHash: string; nowMs: number }>,
  ) => Promise<Result<Account>>;
  /** A one-time code with which one phone may be paired in an operator's name. */
  offerPairing: (codeHash: string, at: Readonly<{ operatorId: string; channelId: ChannelId; expiresMs: number }>) => Promise<void>;
  /** Whose code it is, once; null when it is unknown, used or too old. */
  takePairing: (codeHash: string, nowMs: number) => Promise<Account | null>;
  remotes: (channel: ChannelId, nowMs: number) => Promise<readonly Remote[]>;
  revokeRemote: (channel: ChannelId, id: string) => Promise<boolean>;
  session: (tokenHash: string, nowMs: number) => Promise<Session | null>;
  closeSession: (tokenHash: string) => Promise<void>;
}>;

export type GameSummary = Readonly<{ id: string; kind: string; name: string; version: number; draftRevision: number; changed: boolean }>;
export type GameDraft = Readonly<{
  id: string;
  kind: string;
  name: string;
  settings: unknown;
  revision: number;
  by: string;
  version: number;
  /** Null where nothing was published, and where this version of Izzam can't read what was. */
  published: unknown;
  /** Why the draft can't be read, in words; it is neither shown nor written over then. */
  unreadable: string | null;
}>;
export type Version = Readonly<{ version: number; by: string; atMs: number; note: string }>;

export type GameStore = Readonly<{
  games: (channel: ChannelId) => Promise<readonly GameSummary[]>;
  draft: (channel: ChannelId, game: string) => Promise<GameDraft | null>;
  create: (
    channel: ChannelId,
    game: Readonly<{ id: string; kind: string; name: string; settings: unknown; by: string; nowMs: number }>,
  ) => Promise<void>;
  /** Refused when somebody saved after `revision` was read: nobody overwrites what they have not seen. */
  saveDraft: (
    channel: ChannelId,
    game: string,
    at: Readonly<{ revision: number; settings: unknown; by: string }>,
  ) => Promise<Result<{ revision: number }>>;
  rename: (channel: ChannelId, game: string, name: string) => Promise<boolean>;
  /** Those that can be brought back, newest first. */
  removed: (channel: ChannelId) => Promise<readonly Readonly<{ id: string; kind: string; name: string; removedMs: number }>[]>;
  /** Removed at a time, or null: brought back with all that was kept of it. */
  /** Points that viewers put into it and that are not decided; null while it is paying them. */
  pool: (channel: ChannelId, game: string) => Promise<number | null>;
  setRemoved: (channel: ChannelId, game: string, removedMs: number | null) => Promise<boolean>;
  /** The draft becomes the next version. */
  publish: (
    channel: ChannelId,
    game: string,
    at: Readonly<{ revision: number; by: string; nowMs: number }>,
  ) => Promise<Result<{ version: number }>>;
  versions: (channel: ChannelId, game: string) => Promise<readonly Version[]>;
  versionSettings: (channel: ChannelId, game: string, version: number) => Promise<Result<unknown>>;
}>;

export type OverlaySummary = Readonly<{
  id: string;
  name: string;
  width: number;
  height: number;
  linked: boolean;
  sinceMs: number | null;
  games: readonly string[];
  shows: boolean;
  sounds: boolean;
  dress: Dress;
  note: string;
}>;
export type LayoutPlace = Readonly<{ game: string; place: Place }>;
/** What stands where on one overlay, back to front. `draft` is null while what is arranged is on air. */
export type Layout = Readonly<{
  id: string;
  name: string;
  width: number;
  height: number;
  places: readonly LayoutPlace[];
  draft: readonly LayoutPlace[] | null;
  atOnce: boolean;
  shows: boolean;
  sounds: boolean;
  css: string;
  backdrop: string;
  dress: Dress;
  note: string;
}>;
export type OverlaySetUp = Partial<
  Readonly<{ name: string; atOnce: boolean; shows: boolean; sounds: boolean; css: string; backdrop: string; dress: Dress; note: string }>
>;
export type OverlayStore = Readonly<{
  /** A font that an overlay is to wear. */
  keepFont: (font: Readonly<{ sha: string; bytes: Buffer }>, nowMs: number) => Promise<void>;
  overlays: (channel: ChannelId) => Promise<readonly OverlaySummary[]>;
  create: (
    channel: ChannelId,
    overlay: Readonly<{ id: string; name: string; width: number; height: number; nowMs: number }>,
  ) => Promise<void>;
  resize: (channel: ChannelId, overlay: string, width: number, height: number) => Promise<boolean>;
  sealedToken: (channel: ChannelId, overlay: string) => Promise<string | null>;
  /** Sets or, with null, revokes the link. False when there is no such overlay. */
  setToken: (
    channel: ChannelId,
    overlay: string,
    token: Readonly<{ hash: string; sealed: string }> | null,
    nowMs: number,
  ) => Promise<boolean>;
  rename: (channel: ChannelId, overlay: string, name: string) => Promise<boolean>;
  removed: (channel: ChannelId) => Promise<readonly Readonly<{ id: string; name: string; removedMs: number }>[]>;
  /** Its link stops at once, and works again when it is brought back. */
  setRemoved: (channel: ChannelId, overlay: string, removedMs: number | null) => Promise<boolean>;
  /** Null takes it off. */
  place: (channel: ChannelId, overlay: string, game: string, place: Place | null) => Promise<boolean>;
  layout: (channel: ChannelId, overlay: string) => Promise<Layout | null>;
  /** On air at once, or kept as a draft. False when there is no such overlay. Games of other channels are left out. */
  saveLayout: (channel: ChannelId, overlay: string, places: readonly LayoutPlace[], onAir: boolean) => Promise<boolean>;
  /** What is on air changes; a draft that is being arranged stays. */
  placeOnAir: (channel: ChannelId, overlay: string, places: readonly LayoutPlace[]) => Promise<boolean>;
  setUp: (channel: ChannelId, overlay: string, part: OverlaySetUp) => Promise<boolean>;
}>;

export type EmoteRow = Readonly<{ id: string; word: string; sprite: Sprite; kind: string; createdMs: number }>;
export type NewEmote = Readonly<{
  id: string;
  word: string;
  kind: string;
  sourceSha: string;
  pixelsSha: string;
  sheet: Readonly<{ sha: string; mime: string; bytes: Buffer }>;
  frames: number;
  columns: number;
  frameWidth: number;
  frameHeight: number;
  frameMs: number;
}>;
export type EmoteStore = Readonly<{
  emotes: (channel: ChannelId) => Promise<readonly EmoteRow[]>;
  /** Refused: the word is taken, the same picture is there, the channel has as many as it may. */
  add: (channel: ChannelId, emote: NewEmote, nowMs: number) => Promise<Result<null>>;
  rename: (channel: ChannelId, emote: string, word: string) => Promise<Result<null>>;
  remove: (channel: ChannelId, emote: string, nowMs: number) => Promise<boolean>;
  restore: (channel: ChannelId, emote: string) => Promise<Result<null>>;
}>;

export type ChatStore = Readonly<{
  /** Channels whose chat is the practice rig’s. */
  practising: () => Promise<readonly ChannelId[]>;
  connection: (channel: ChannelId) => Promise<Readonly<{ enabled: boolean; settings: unknown; hasSecret: boolean }> | null>;
  /** `secret`: a sealed text to keep, null to forget the one there is, undefined to leave it. */
  saveConnection: (channel: ChannelId, at: Readonly<{ enabled: boolean; settings: unknown; secret?: string | null }>) => Promise<void>;
}>;

export type StudioStore = Pick<ChatStore, "connection" | "saveConnection">;

export type AuditStore = Readonly<{
  audit: (channel: ChannelId, operator: string, action: string, detail: Readonly<Record<string, unknown>>, nowMs: number) => Promise<void>;
}>;

/** How long things are kept, in days. */
export type Retention = Readonly<{ logDays: number; auditDays: number; hitDays: number }>;
export type KeptMonth = Readonly<{ month: string; messages: number; others: number; bytes: number; goesMs: number }>;
export type DataStore = Readonly<{
  retention: () => Promise<Retention>;
  setRetention: (retention: Retention) => Promise<void>;
  /** Months of the log, newest first, with what is of this channel and what each takes on disk in all. */
  months: (channel: ChannelId) => Promise<readonly KeptMonth[]>;
  /** What else takes room on disk, largest first. */
  sizes: () => Promise<readonly Readonly<{ what: string; bytes: number; rows: number }>[]>;
  /** One month of a channel's log, in order, a batch of rows at a time. */
  month: (channel: ChannelId, month: string) => AsyncGenerator<readonly Readonly<Record<string, unknown>>[]>;
}>;

export type OperatorStore = Readonly<{
  data: DataStore;
  accounts: AccountStore;
  games: GameStore;
  overlays: OverlayStore;
  emotes: EmoteStore;
  props: PropStore;
  media: MediaStore;
  lab: LabStore;
  reviews: ReviewStore;
  chatLogs: ChatLogStore;
  outsideShows: OutsideShowStore;
  events: EventStore;
  chat: ChatStore;
  studio: StudioStore;
  log: AuditStore;
  shows: ShowStore;
  points: PointsStore;
}>;
