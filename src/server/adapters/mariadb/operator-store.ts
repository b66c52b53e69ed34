import type { OperatorStore, StudioStore } from "../../ports/operator-store";
import { mariadbAccounts } from "./accounts";
import { mariadbData } from "./data";
import { type Database, fromJson } from "./database";
import { mariadbEvents } from "./events";
import { mariadbChatLogs } from "./chat-logs";
import { mariadbLab } from "./lab";
import { mariadbMedia } from "./media";
import { mariadbProps } from "./props";
import { mariadbEmotes } from "./emotes";
import { mariadbGames } from "./games";
import { channelId } from "../../../core/kernel/ids";
import { mariadbOutsideShows } from "./outside-shows";
import { mariadbOverlays } from "./overlays";
import { mariadbPoints } from "./points-store";
import { mariadbShows } from "./shows";
import { mariadbReviews } from "./reviews";
import { bump } from "./rows";

export function mariadbOperatorStore(db: Database): OperatorStore {
  return {
    accounts: mariadbAccounts(db),
    games: mariadbGames(db),
    overlays: mariadbOverlays(db),
    emotes: mariadbEmotes(db),
    props: mariadbProps(db),
    media: mariadbMedia(db),
    lab: mariadbLab(db),
    reviews: mariadbReviews(db),
    chatLogs: mariadbChatLogs(db),
    outsideShows: mariadbOutsideShows(db),
    events: mariadbEvents(db),
    shows: mariadbShows(db),
    points: mariadbPoints(db),
    data: mariadbData(db),
    chat: {
      ...connections(db, "chat_connections"),
      practising: async () => {
        const rows = await db("chat_connections").select("channel_id", "settings");
        const practises = (settings: unknown): boolean =>
          typeof settings === "object" && settings !== null && "practice" in settings && settings.practice === true;
        return rows.filter((r) => practises(fromJson(r["settings"]))).map((r) => channelId(String(r["channel_id"])));
      },
    },
    studio: connections(db, "studio_connections"),
    log: {
      audit: async (channel, operator, action, detail, nowMs) => {
        await db("audit").insert({ channel_id: channel, operator_id: operator, action, detail: JSON.stringify(detail), at_ms: nowMs });
      },
    },
  };
}

/** One connection of a kind for each channel: whether it is wanted, how it is set, and its sealed secret. */
function connections(db: Database, table: "chat_connections" | "studio_connections"): StudioStore {
  return {
    connection: async (channel) => {
      const row = await db(table).where({ channel_id: channel }).first();
      return row === undefined
        ? null
        : { enabled: Boolean(row["enabled"]), settings: fromJson(row["settings"]), hasSecret: row["secret_sealed"] !== null };
    },
    saveConnection: async (channel, { enabled, settings, secret }) => {
      const row = { enabled, settings: JSON.stringify(settings), ...(secret === undefined ? {} : { secret_sealed: secret }) };
      await db(table)
        .insert({ channel_id: channel, ...row })
        .onConflict("channel_id")
        .merge();
      await bump(db, channel);
    },
  };
}
