import type { ChannelId } from "../../core/kernel/ids";
import { ok, refused, type Result } from "../../core/kernel/refusal";
import { roomsInWords } from "../../core/lab/crowd";
import { type EveningRates, ratesOfRoom } from "../../core/lab/rates";
import { usesOf } from "../../core/props/kinds";
import { type CheckModule, type Check, settingsChecks } from "../../core/rehearsal/checks";
import type { CrowdAsk, RehearsalAsk, Source } from "../../core/rehearsal/plan";
import type { WebServices } from "../composition/web";
import type { Session } from "../ports/operator-store";
import { published } from "./published";

const roomHours = 4;
/** What is usual is taken from so many shows. */
const usualShows = 10;

/** Begins a rehearsal for who asks; what its crowd is made of is looked up here. */
export async function beginRehearsal(
  services: Pick<WebServices, "store" | "engine">,
  session: Session,
  ask: RehearsalAsk,
): Promise<Result<Readonly<{ id: string }>>> {
  const source = await sourceOf(services, session.channelId, ask.crowd);
  if (!source.ok) return source;
  const { pace, chat, overlays } = ask;
  return services.engine.rehearse(session.channelId, { by: session.login, source: source.value, pace, chat, overlays });
}

async function sourceOf({ store }: Pick<WebServices, "store">, channel: ChannelId, crowd: CrowdAsk): Promise<Result<Source>> {
  switch (crowd.from) {
    case "nobody":
      return ok({ from: "nobody" });
    case "room":
      return ok({ from: "rates", rates: ratesOfRoom(crowd.room, roomHours), name: roomsInWords[crowd.room] });
    case "last": {
      const rates = middleOf(await store.lab.rates(channel, crowd.shows));
      if (rates === null) return refused("lab/no-shows");
      return ok({ from: "rates", rates, name: crowd.shows === 1 ? "an evening like the last" : `an evening like the last ${crowd.shows}` });
    }
    case "show": {
      const show = await store.reviews.show(channel, crowd.show);
      if (show === null) return refused("review/unknown");
      const { fromMs, toMs, name } = show;
      const beginMs = fromMs + crowd.minute * 60_000;
      if (beginMs >= toMs) return refused("rehearsal/minute", { most: Math.floor((toMs - fromMs) / 60_000) });
      const called = name === "" ? `the show of ${new Date(fromMs).toISOString().slice(0, 10)}` : `“${name}”`;
      return ok({ from: "log", fromMs, toMs, beginMs, hands: crowd.hands, name: `${called}, played again` });
    }
    case "file": {
      const chat = await store.chatLogs.lines(channel, crowd.file);
      if (chat === null || chat.lines.length === 0) return refused("rehearsal/no-file");
      return ok({ from: "lines", name: `the chat “${chat.name}”`, lines: [...chat.lines] });
    }
  }
}

/** The evening in the middle of some, by how much was written in an hour; null for none. */
function middleOf(evenings: readonly EveningRates[]): EveningRates | null {
  const sorted = [...evenings].sort((a, b) => a.perHour.message - b.perHour.message);
  return sorted[Math.floor((sorted.length - 1) / 2)] ?? null;
}

export type ChecksView = Readonly<{ checks: readonly Check[]; modules: readonly CheckModule[] }>;
/** What of the settings is worth a look before a show, and what the page needs to look at the rest itself. */
export async function checksView(
  services: Pick<WebServices, "store">,
  channel: ChannelId,
  keyUse: (key: string, games: readonly Readonly<{ kind: string }>[]) => string | null,
): Promise<ChecksView> {
  const { store } = services;
  const [modules, props, evenings] = await Promise.all([
    published(services, channel),
    store.props.props(channel),
    store.lab.rates(channel, usualShows),
  ]);
  return {
    checks: settingsChecks({
      modules,
      props: props.flatMap(({ id, kind, facts }) => usesOf(kind, facts).map((use) => ({ id, kind: use }))),
      evenings,
      keyUse: (key) => keyUse(key, modules),
    }),
    // Only what the live checks read: nothing else of the settings leaves the server for it.
    modules: modules
      .filter((m) => m.kind === "cues" || m.kind === "rewards")
      .map(({ id, kind, name, settings }) => ({ id, kind, name, settings })),
  };
}
