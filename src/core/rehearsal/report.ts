import { gameOf } from "../games/registry";
import { isGame } from "../games/fronts";
import { toldOf } from "../games/words";
import { noteInWords } from "../notes";
import type { PlanItem } from "../show/plan";
import { clockOf } from "../words/clock";
import { count, counted } from "../words/sentence";
import { booksOf } from "./books";
import type { Watch } from "./watch";

export type ReportLink = Readonly<{ words: string; href: string }>;
/** `look`: worth a look before the show; `fine`: as it should be; `told`: neither. */
export type ReportLine = Readonly<{ tone: "fine" | "look" | "told"; words: string; links: readonly ReportLink[] }>;
export type ReportPart = Readonly<{ id: string; title: string; lines: readonly ReportLine[] }>;
export type Rehearsed = Readonly<{
  /** So long it ran, in its own time. */
  ms: number;
  modules: readonly Readonly<{ id: string; kind: string; name: string; settings: unknown }>[];
  plan: readonly PlanItem[];
  /** What of the plan was started, and what was skipped. */
  done: readonly string[];
  skipped: readonly string[];
  points: string;
}>;

/** So many lines of one part; the rest is counted. */
const mostLines = 12;
/** What falls within so short a part of the evening falls early. */
const earlyShare = 1 / 4;
const percent = (share: number): string => `${Math.round(share * 100)} %`;
const line = (tone: ReportLine["tone"], words: string, ...links: ReportLink[]): ReportLine => ({ tone, words, links });
const setRight = (href: string): ReportLink => ({ words: "Set this right", href });
const editorOf = (id: string): string => `/prepare/games/${encodeURIComponent(id)}`;
const labOf = (id: string): ReportLink => ({ words: "Ask the odds lab", href: `/rehearse/lab?about=${encodeURIComponent(id)}` });

/** What a rehearsal taught, part by part; parts without lines say so. */
export function reportOf(watch: Watch, of: Rehearsed): readonly ReportPart[] {
  return [
    { id: "came", title: "What came to pass", lines: cameToPass(watch, of) },
    { id: "points", title: `${of.points[0]?.toUpperCase() ?? ""}${of.points.slice(1)} made and taken`, lines: flows(watch, of) },
    { id: "never", title: "What never happened", lines: neverFired(watch, of) },
    { id: "refused", title: "What was refused", lines: refusals(watch, of) },
    { id: "queues", title: "What had to wait", lines: collisions(watch, of) },
    { id: "reach", title: "What nobody could reach", lines: outOfReach(watch, of) },
    { id: "picture", title: "The picture", lines: frames(watch) },
  ];
}

function cameToPass(watch: Watch, of: Rehearsed): ReportLine[] {
  const lines: ReportLine[] = [];
  for (const { id, kind, name } of of.modules) {
    if (!isGame(kind)) continue;
    const filled = watch.filled.get(id);
    const told = [...watch.told.values()].filter((t) => t.game === id && toldOf(t.what)?.told.logged === true);
    const asks = gameOf(kind)?.lab !== undefined;
    for (const { what, count: n, firstMs } of told) {
      const words = toldOf(what)?.told.words ?? "something came to pass";
      const times = n === 1 ? "once" : `${count(n)} times`;
      const early = of.ms > 0 && firstMs < of.ms * earlyShare && filled !== undefined;
      lines.push(
        line(
          early ? "look" : "told",
          `${name}: ${words} ${times}, first at ${clockOf(firstMs)}${early ? `, within the first quarter of the ${clockOf(of.ms)} rehearsed` : ""}.`,
          ...(early ? [setRight(editorOf(id)), ...(asks ? [labOf(id)] : [])] : []),
        ),
      );
    }
    // What came to its end is told above.
    if (filled !== undefined && told.length === 0) {
      const little = filled.most < 0.25;
      lines.push(
        line(
          little ? "look" : "told",
          `${name} came to ${percent(filled.most)} ${filled.ends}, at ${clockOf(filled.atMs)}.`,
          ...(little ? [setRight(editorOf(id)), ...(asks ? [labOf(id)] : [])] : []),
        ),
      );
    }
  }
  return lines.slice(0, mostLines * 2);
}

function flows(watch: Watch, of: Rehearsed): ReportLine[] {
  const { made, taken, refunds } = watch;
  const sales = [...watch.sold.values()].reduce((sum, n) => sum + n, 0);
  if (made === 0 && taken === 0 && sales === 0) return [];
  const more = made > taken * 3 && taken > 0;
  return [
    line(
      more ? "look" : "told",
      `${count(made)} ${of.points} were made and ${count(taken)} taken${more ? ": more than three times as much comes in as goes out" : ""}.`,
      ...(more ? [setRight("/prepare/points")] : []),
    ),
    line(
      "told",
      `${counted(sales, "thing was", "things were")} bought${refunds > 0 ? `, ${counted(refunds, "was", "were")} given back` : ""}; the richest had ${count(watch.richest)}.`,
    ),
  ];
}

function neverFired(watch: Watch, of: Rehearsed): ReportLine[] {
  const lines: ReportLine[] = [];
  for (const item of of.plan)
    if (item.does.do !== "note" && !of.done.includes(item.id) && !of.skipped.includes(item.id) && item.atMin * 60_000 <= of.ms)
      lines.push(
        line("look", `“${item.title}” of the rundown was due at minute ${item.atMin} and was not started.`, setRight("/prepare/show")),
      );
  for (const { id, kind, name } of of.modules) {
    if (isGame(kind) && gameOf(kind)?.bodiless !== true && !watch.ran.has(id))
      lines.push(line("told", `${name} was not on at any time.`, { words: "Put it into the rundown", href: "/prepare/show" }));
  }
  const { rules, cues, rewards } = booksOf(of.modules);
  for (const rule of rules)
    if (rule.on && !watch.rules.has(rule.name))
      lines.push(line("told", `The rule “${rule.name}” never answered.`, setRight("/prepare/rules")));
  for (const cue of cues)
    if (!watch.cues.has(cue.id)) lines.push(line("told", `The cue “${cue.name}” was never fired.`, setRight("/prepare/cues")));
  for (const reward of rewards)
    if (reward.on && reward.price <= watch.richest && !watch.sold.has(reward.id))
      lines.push(line("told", `“${reward.name}” was never bought, though somebody could have.`, setRight("/prepare/rewards")));
  return cutTo(lines);
}

/** What was refused, most often first. */
function refusals(watch: Watch, of: Rehearsed): ReportLine[] {
  const no = [...watch.notes.values()].filter((n) => n.note.refusal !== undefined).sort((a, b) => b.count - a.count);
  const lines = no.map((noted) => {
    const module = of.modules.find((m) => m.id === noted.game);
    const words = module === undefined ? "" : noteInWords(module.kind, { ...noted.note, count: 1 });
    const said = words === "" ? (noted.note.refusal?.code ?? "") : words;
    const times = noted.count === 1 ? "Once" : `${count(noted.count)} times`;
    return line("told", `${times}: ${module?.name ?? "something"}: ${said}.`, ...(module === undefined ? [] : [setRight(hrefOf(module))]));
  });
  return cutTo(lines);
}

function collisions(watch: Watch, of: Rehearsed): ReportLine[] {
  const { queues } = booksOf(of.modules);
  const nameOf = (id: string): string => queues.find((q) => q.id === id)?.name ?? id;
  return [...watch.queues].flatMap(([id, { most, full }]) => {
    if (most < 2 && full === 0) return [];
    const words = `In “${nameOf(id)}” up to ${counted(most, "thing")} waited at once`;
    return full > 0
      ? [line("look", `${words}, and ${counted(full, "was", "were")} left out because it was full.`, setRight("/prepare/rules"))]
      : [line(most >= 5 ? "look" : "told", `${words}.`, ...(most >= 5 ? [setRight("/prepare/rules")] : []))];
  });
}

function outOfReach(watch: Watch, of: Rehearsed): ReportLine[] {
  return cutTo(
    booksOf(of.modules)
      .rewards.filter((r) => r.on && r.price > watch.richest && !watch.sold.has(r.id))
      .map((r) =>
        line("look", `“${r.name}” costs ${count(r.price)}; nobody had more than ${count(watch.richest)}.`, setRight("/prepare/rewards")),
      ),
  );
}

function frames({ frames: { pages, late, least } }: Watch): ReportLine[] {
  if (pages === 0) return [line("told", "No overlay page took part, so nothing is known of its frames.")];
  const slow = late > 0 || (least !== null && least < 50);
  return [
    line(
      slow ? "look" : "fine",
      `${counted(pages, "overlay page")} took part; ${late === 0 ? "no frame came late" : `${counted(late, "frame")} came late`}${least === null ? "" : `, and it never drew fewer than ${Math.round(least)} a second`}.`,
      ...(slow ? [setRight("/prepare/overlays")] : []),
    ),
  ];
}

const hrefOf = ({ id, kind }: Readonly<{ id: string; kind: string }>): string => (isGame(kind) ? editorOf(id) : `/prepare/${kind}`);

function cutTo(lines: readonly ReportLine[]): ReportLine[] {
  if (lines.length <= mostLines) return [...lines];
  // What is worth a look is never among those left out.
  const first = [...lines].sort((a, b) => Number(b.tone === "look") - Number(a.tone === "look")).slice(0, mostLines);
  return [...first, line("told", `And ${counted(lines.length - mostLines, "more of the kind", "more of the kind")}.`)];
}
