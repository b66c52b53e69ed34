import { flashingOf } from "../../props/video";
import type { GameAsk, Row } from "../../module/game";
import type { Audience } from "../../module/module";
import { moneyInWords } from "../../signals/money-words";
import { counted, seconds } from "../../words/sentence";
import { nextOf, opensMs } from "./lane";
import type { Clip, ClipsDurable, ClipsSettings } from "./settings";

const told = (c: Clip) => ({
  n: c.n,
  name: c.viewer?.name ?? "",
  title: c.title,
  address: c.address,
  startMs: c.startMs,
  ms: c.facts?.ms ?? c.ms,
  phase: c.phase,
  askedMs: c.askedMs,
  paid:
    c.pay.by === "points" || c.pay.by === "money"
      ? { by: c.pay.by, amount: c.pay.amount, currency: c.pay.by === "money" ? c.pay.currency : "" }
      : null,
  facts: c.facts,
});

/** What an audience may see of it. */
export function clipsView(settings: ClipsSettings, durable: ClipsDurable, audience: Audience): Row {
  const { on, held, now, queue, lately, barred, owed } = durable;
  if (audience === "viewer")
    return {
      on,
      word: settings.word,
      perSecond: settings.points.perSecond,
      least: settings.points.least,
      usualMs: settings.usualMs,
      mostMs: settings.mostMs,
      approve: settings.approve,
      waiting: queue.length,
    };
  const { looks, volume } = settings;
  const { clip } = now ?? {};
  const film = clip?.facts ?? null;
  if (audience === "overlay")
    return {
      on,
      looks,
      now:
        now === null || clip === undefined || film === null
          ? null
          : {
              n: clip.n,
              name: looks.name ? (clip.viewer?.name ?? "") : "",
              line: looks.line === "" ? clip.title : looks.line,
              url: film.url,
              poster: film.poster,
              ms: film.ms,
              fromMs: now.sinceMs + opensMs,
              shown: now.shown,
              volume: volume / 100,
              width: film.width,
              height: film.height,
              flashing: flashingOf(film),
            },
    };
  return {
    on,
    held,
    now: now === null ? null : { ...told(now.clip), shown: now.shown, seen: now.seen, sinceMs: now.sinceMs, untilMs: now.untilMs },
    next: nextOf(durable)?.n ?? null,
    waiting: queue.length,
    clips: queue.map(told),
    lately: lately.map((c) => ({ ...told(c), atMs: c.atMs, ended: c.ended })),
    barred: { viewers: barred.viewers.map((v) => v.name), files: barred.files },
    owed,
  };
}

// Views of operators are written above.
type Told = ReturnType<typeof told>;
export const waitsForYes = (view: Row): readonly GameAsk[] =>
  (view["clips"] as readonly Told[])
    .filter((c) => c.phase === "asks")
    .map((c) => ({
      id: `clip.${c.n}`,
      sinceMs: c.askedMs,
      words: `Let this clip play? ${c.title === "" ? "" : `“${c.title}”, `}${seconds(c.ms)}`,
      about: c.name,
      ...(c.facts?.strip == null ? {} : { strip: c.facts.strip }),
      main: { label: "Let it play", command: { do: "approve", n: c.n } },
      other: { label: "Leave it out", command: { do: "drop", n: c.n } },
    }));
export const isOwed = (view: Row): readonly GameAsk[] =>
  (view["owed"] as ClipsDurable["owed"]).map((o) => ({
    id: `owed.${o.id}`,
    sinceMs: o.atMs,
    words: `${moneyInWords(o.minor, o.currency)} is owed back: ${o.why}${o.title === "" ? "" : ` (“${o.title}”)`}`,
    about: o.viewer?.name ?? "somebody unknown",
    main: { label: "Paid back", command: { do: "settled", n: o.id } },
    other: o.viewer === null ? null : { label: "For their next", command: { do: "credit", n: o.id } },
  }));

export function clipResult(body: Row): string {
  const seenMs = Number(body["seenMs"]);
  const paid = Number(body["paid"]);
  const price =
    body["by"] === "points" && paid > 0
      ? `, for ${counted(paid, "point")}`
      : body["by"] === "money"
        ? `, for ${moneyInWords(paid, String(body["currency"]))}`
        : "";
  return `${seenMs <= 0 ? "never seen" : `seen for ${seconds(seenMs)}`}${body["skipped"] === true ? ", skipped" : ""}${price}`;
}
