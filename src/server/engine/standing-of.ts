import type { RehearsalStanding } from "../../core/wire/messages";
import type { ChatStanding } from "../ports/chat";
import type { StudioStanding } from "../ports/studio";
import { chatRoomOf } from "./chat-lines";
import { healthOf } from "./health";
import type { OverlayHub } from "./overlay-hub";
import type { Runner } from "./runner";

type Now = Readonly<{
  chat: ChatStanding | null;
  pages: ReturnType<OverlayHub["openPages"]>;
  refusedEvents: number;
  databaseAway: boolean;
  lagMs: number;
  clockAheadMs: number;
  ledgerFaults: number;
  unspoken: Readonly<{ count: number; why: string }>;
  facesUrl: string;
  studio: StudioStanding | null;
  rehearsal: RehearsalStanding | null;
  rehearsals: readonly RehearsalStanding[];
}>;

/** How a channel stands, as operators' pages are told it. */
export function standingOf(runner: Runner, now: Now) {
  const { chat, pages } = now;
  const { games, perMinute, heardMs, backlog, lost, unfit, unreadable, recovering, waitingMs, queues, events, held, sales } =
    runner.standing();
  const databaseAway = now.databaseAway || recovering;
  return {
    health: healthOf({
      chat,
      studio: now.studio,
      channelName: runner.row.name,
      perMinute,
      databaseAway,
      backlog: databaseAway ? backlog : 0,
      lost,
      unfit,
      unreadable,
      pages,
      lagMs: now.lagMs,
      waitingMs,
      clockAheadMs: now.clockAheadMs,
      events: { ...events, refused: now.refusedEvents, on: runner.row.events !== null },
      sounds: runner.row.sounds.length,
      ledgerFaults: now.ledgerFaults,
      unspoken: now.unspoken,
      stalledFilms: runner.outside.films.stalled,
    }),
    pages,
    hushed: runner.row.hushed,
    chat: {
      state: chat?.state ?? "off",
      sinceMs: chat?.sinceMs ?? null,
      perMinute,
      heardMs,
      room: runner.row.chat === null ? "" : chatRoomOf(runner.row.chat),
      lastError: chat?.lastError ?? "",
      lastTrouble: chat?.lastTrouble ?? null,
    },
    games,
    queues,
    events: { ...events, refused: now.refusedEvents },
    facesUrl: now.facesUrl,
    overlays: runner.row.overlays.map((o) => ({
      id: o.id,
      name: o.name,
      width: o.width ?? 1_920,
      height: o.height ?? 1_080,
      backdrop: o.backdrop ?? "studio",
      shows: o.shows,
      places: o.places.map((p) => ({ game: p.gameId, place: p.place })),
    })),
    held,
    sales,
    rehearsal: now.rehearsal,
    rehearsals: [...now.rehearsals],
  };
}
