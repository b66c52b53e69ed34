import { count, counted } from "../../core/words/sentence";
import type { Jar, PredictionView, Shown } from "./view";

const jarsOf = (outcomes: PredictionView["outcomes"], under: (o: PredictionView["outcomes"][number]) => string): readonly Jar[] =>
  outcomes.map((o) => ({ label: o.label, share: o.share, under: under(o), top: o.top }));

/** What is drawn of a view: the channel's own prediction, the platform's while none of ours is under way, or nothing. */
export function shownNow(view: PredictionView, preview = false): Shown | null {
  if (preview && view.phase === "") {
    const { title, outcomes } = view.next;
    const jars = outcomes.map((label) => ({ label, share: 0, under: "", top: [] }));
    return {
      title,
      line: "waits to be opened",
      jars,
      result: null,
      locksMs: 0,
      openedMs: 0,
      live: false,
      over: "",
      key: `next ${outcomes.length}`,
    };
  }
  const own = view.phase === "" ? null : ownShown(view);
  if (own?.live === true || view.foreign === null) return own;
  const { foreign } = view;
  const platform = platformShown(foreign);
  return own !== null && view.endedMs > foreign.endedMs && !platform.live ? own : platform;
}

function ownShown(view: PredictionView): Shown {
  const { phase, title, stakes, pot, people, result, paid, word } = view;
  const live = !["done", "cancelled"].includes(phase);
  const what = result === null ? "" : (view.outcomes[result]?.label ?? "");
  const lines: Readonly<Record<PredictionView["phase"], string>> = {
    "": "",
    open: stakes ? `write ${word} A 100 · ${count(pot)} in the jars` : `write ${word} A · ${counted(people, "vote")} so far`,
    locked: stakes ? `locked · ${count(pot)} in the jars` : `locked · ${counted(people, "vote")}`,
    paying: resultLine(),
    done: resultLine(),
    reversing: "the result is taken back",
    returning: "cancelled: everybody gets their own back",
    cancelled: "cancelled: everybody has their own back",
  };
  function resultLine(): string {
    if (paid?.returned === true && stakes) return "nobody was right: everybody has their own back";
    if (!stakes) return paid?.winners === 0 ? "nobody was right" : `${counted(paid?.winners ?? 0, "viewer was", "viewers were")} right`;
    return `${counted(paid?.winners ?? 0, "viewer shares", "viewers share")} ${count(paid?.pot ?? 0)}`;
  }
  return {
    title,
    line: lines[phase],
    jars: jarsOf(view.outcomes, (o) =>
      stakes
        ? o.odds === "–"
          ? "nobody yet"
          : `${o.share} % · pays ${Number(o.odds).toFixed(1)} ×`
        : `${o.share} % · ${counted(o.people, "vote")}`,
    ),
    result: ["paying", "done"].includes(phase) ? result : null,
    locksMs: phase === "open" ? view.locksMs : 0,
    openedMs: view.openedMs,
    live,
    over: phase === "cancelled" || phase === "returning" ? "cancelled" : ["paying", "done"].includes(phase) && what !== "" ? "result" : "",
    key: `own ${view.openedMs}`,
  };
}

function platformShown(foreign: NonNullable<PredictionView["foreign"]>): Shown {
  const { title, state, outcomes, result, locksMs } = foreign;
  const all = outcomes.reduce((sum, o) => sum + o.people, 0);
  return {
    title,
    line:
      state === "open"
        ? `on the platform · ${counted(all, "viewer")} so far`
        : state === "locked"
          ? `locked · ${counted(all, "viewer")}`
          : state === "done"
            ? "it is decided"
            : "it was cancelled",
    jars: jarsOf(outcomes, (o) => `${o.share} % · ${counted(o.people, "viewer")}`),
    result: state === "done" ? result : null,
    locksMs,
    openedMs: 0,
    live: state === "open" || state === "locked",
    over: state === "done" ? "result" : state === "cancelled" ? "cancelled" : "",
    key: `platform ${title}`,
  };
}
