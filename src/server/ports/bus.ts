import type { ChannelId } from "../../core/kernel/ids";
import type { Alert } from "../../core/alerts/alert";
import type { TimelineEvent } from "../../core/show/timeline";
import type { Booking } from "../../core/rewards/ledger-view";
import type { Note } from "../../core/module/module";

/** What a runner tells the rest, after it is true. In-process here; a shared bus on several machines. */
export type Publication =
  | Readonly<{ kind: "effects"; game: string; effects: readonly unknown[] }>
  | Readonly<{ kind: "stage" }>
  | Readonly<{ kind: "state"; game: string }>
  | Readonly<{ kind: "alert"; alert: Alert }>
  | Readonly<{ kind: "alert-end"; ids: readonly string[] }>
  | Readonly<{ kind: "hush"; on: boolean }>
  | Readonly<{
      kind: "talk";
      seq: number;
      atMs: number;
      of: string;
      name: string;
      /** Who it was, for the operator's card; null for nobody in chat. */
      viewer: Readonly<{ id: string; roles: readonly string[] }> | null;
      text: string;
      notes: readonly Readonly<{ game: string; note: Note }>[];
    }>
  /** Nothing that names this viewer is kept any longer. */
  | Readonly<{ kind: "forgotten"; viewer: string }>
  /** What goes onto the tape, after its row was committed or handed to the log. */
  | Readonly<{ kind: "mark"; mark: TimelineEvent }>
  /** Points moved, or something was sold, decided or given back. */
  | Readonly<{ kind: "booked"; booking: Booking }>
  | Readonly<{ kind: "changed"; what: string; id: string; revision: number; by: string }>;
export type Bus = Readonly<{
  publish: (channel: ChannelId, publication: Publication) => void;
  subscribe: (listener: (channel: ChannelId, publication: Publication) => void) => () => void;
}>;
