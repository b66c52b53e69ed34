import type { ChannelId } from "../../core/kernel/ids";
import type { Result } from "../../core/kernel/refusal";
import type { PropKind } from "../../core/props/kinds";

/** Pictures and sounds of a channel. The source file stays as it came; what is served is made of it. */
export type PropRow = Readonly<{
  id: string;
  name: string;
  kind: PropKind;
  sourceKind: string;
  url: string;
  settings: unknown;
  facts: unknown;
  createdMs: number;
}>;
type File = Readonly<{ sha: string; mime: string; bytes: Buffer }>;
/** A file, or one that is kept already. */
type Source = File | Readonly<{ sha: string }>;
export type NewProp = Readonly<{
  id: string;
  name: string;
  kind: PropKind;
  sourceKind: string;
  source: Source;
  made: File;
  settings: unknown;
  facts: unknown;
}>;
export type PropStore = Readonly<{
  props: (channel: ChannelId) => Promise<readonly PropRow[]>;
  /** Refused: the same file is there, the channel has as many as it may. */
  add: (channel: ChannelId, prop: NewProp, nowMs: number) => Promise<Result<null>>;
  /** The name of what was made of this very file; null when nothing was. */
  sameSource: (channel: ChannelId, sha: string) => Promise<string | null>;
  source: (
    channel: ChannelId,
    id: string,
  ) => Promise<Readonly<{ kind: PropKind; settings: unknown; mime: string; sha: string; bytes: Buffer }> | null>;
  /** Made anew of its source, or of another: everything that uses it shows the new one. */
  remake: (
    channel: ChannelId,
    id: string,
    prop: Readonly<{ made: File; source: Source | null; sourceKind: string; settings: unknown; facts: unknown }>,
    nowMs: number,
  ) => Promise<Result<null>>;
  rename: (channel: ChannelId, id: string, name: string) => Promise<boolean>;
  remove: (channel: ChannelId, id: string, nowMs: number) => Promise<boolean>;
  restore: (channel: ChannelId, id: string) => Promise<boolean>;
  /** The settings of everything that can name a prop, as text, to be searched for ids. */
  uses: (channel: ChannelId) => Promise<readonly Readonly<{ game: string; name: string; text: string }>[]>;
}>;
