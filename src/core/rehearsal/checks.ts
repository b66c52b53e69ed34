import { gameOf } from "../games/registry";
import { isGame } from "../games/fronts";
import { actionOf } from "../games/words";
import type { EveningRates } from "../lab/rates";
import { type BookFacts, cueHints, rewardHints, ruleHints } from "../rules/hints";
import type { PlanItem } from "../show/plan";
import type { HealthItem, OpenPage, StandingOverlay } from "../wire/messages";
import { count } from "../words/sentence";
import { booksOf } from "./books";

/** `wrong`: it will not work on air; `look`: it may not be what is meant. */
export type Check = Readonly<{ id: string; tone: "wrong" | "look"; about: string; words: string; href: string; fix: string }>;

export type CheckModule = Readonly<{ id: string; kind: string; name: string; settings: unknown }>;
export type SettingsFacts = Readonly<{
  modules: readonly CheckModule[];
  props: BookFacts["props"];
  /** How the last shows went; none where there were none. */
  evenings: readonly EveningRates[];
  /** Who uses a key beside cues; null for nobody. */
  keyUse: (key: string) => string | null;
}>;

const check = (id: string, tone: Check["tone"], about: string, words: string, href: string, fix = "Set this right"): Check => ({
  id,
  tone,
  about,
  words,
  href,
  fix,
});

/** What is seen in the settings as they are published. */
export function settingsChecks(facts: SettingsFacts): readonly Check[] {
  const { modules, props } = facts;
  const games = modules.filter((m) => isGame(m.kind));
  const book: BookFacts = { games, props };
  return [
    ...gameChecks(games),
    ...cueChecks(modules, book, facts.keyUse),
    ...ruleChecks(modules, book),
    ...rewardChecks(modules, book, facts.evenings),
  ];
}

function gameChecks(games: readonly CheckModule[]): Check[] {
  return games.flatMap(({ id, kind, name, settings }) =>
    (gameOf(kind)?.lacks?.(settings) ?? []).map((lack) => check(`lacks.${id}.${lack.id}`, "look", name, lack.text, `/prepare/games/${id}`)),
  );
}

function cueChecks(modules: readonly CheckModule[], book: BookFacts, keyUse: SettingsFacts["keyUse"]): Check[] {
  const { cues } = booksOf(modules);
  const named = (id: string): string => cues.find((c) => c.id === id)?.name ?? "a cue";
  // Two cues of one key are not published; what else has it, the book can't know.
  const twice = cues.flatMap((cue) => {
    const used = cue.key === "" ? null : keyUse(cue.key);
    const words = `Its key “${cue.key}” is used for ${used ?? ""} too: only one of them will hear it.`;
    return used === null ? [] : [check(`key.${cue.id}`, "wrong", cue.name, words, "/prepare/cues")];
  });
  return [
    ...cueHints(cues, book).map((h, i) => check(`cue.${h.ruleId}.${i}`, "wrong", named(h.ruleId), plainly(h.text), "/prepare/cues")),
    ...twice,
  ];
}

function ruleChecks(modules: readonly CheckModule[], book: BookFacts): Check[] {
  const { rules, rulebook } = booksOf(modules);
  if (rulebook === null) return [];
  const on = new Set(rules.filter((r) => r.on).map((r) => r.id));
  return ruleHints(rulebook, book)
    .filter((h) => on.has(h.ruleId))
    .map((h, i) =>
      check(
        `rule.${h.ruleId}.${i}`,
        h.text.startsWith("It can never") ? "look" : "wrong",
        rules.find((r) => r.id === h.ruleId)?.name || "A rule",
        plainly(h.text),
        "/prepare/rules",
      ),
    );
}

function rewardChecks(modules: readonly CheckModule[], book: BookFacts, evenings: readonly EveningRates[]): Check[] {
  const rewards = booksOf(modules).rewards.filter((r) => r.on);
  const hints = rewardHints(rewards, { ...book, audible: true }).filter((h) => !h.text.startsWith("It has no chat word"));
  const usual = usualSales(evenings);
  return [
    ...hints.map((h, i) =>
      check(
        `reward.${h.ruleId}.${i}`,
        "wrong",
        rewards.find((r) => r.id === h.ruleId)?.name ?? "A reward",
        plainly(h.text),
        "/prepare/rewards",
      ),
    ),
    ...rewards.flatMap((r) => {
      const asked = usual.get(r.id) ?? 0;
      const least = Math.min(r.perShow > 0 ? r.perShow : Infinity, r.stock > 0 ? r.stock : Infinity);
      return asked < 1 || asked < least
        ? []
        : [
            check(
              `limit.${r.id}`,
              "look",
              r.name,
              `A usual evening asks for it ${count(Math.round(asked))} times; ${least === r.perShow ? `it may be had ${count(least)} times a show` : `there are ${count(least)} of it in all`}.`,
              "/prepare/rewards",
            ),
          ];
    }),
  ];
}

/** How often each reward was bought in the middle one of the last evenings. */
function usualSales(evenings: readonly EveningRates[]): ReadonlyMap<string, number> {
  const ids = new Set(evenings.flatMap((e) => e.bought));
  return new Map(
    [...ids].map((id) => {
      const each = evenings
        .map((e) => (e.bought.length === 0 ? 0 : (e.buys * e.hours * e.bought.filter((b) => b === id).length) / e.bought.length))
        .sort((a, b) => a - b);
      return [id, each[Math.floor((each.length - 1) / 2)] ?? 0];
    }),
  );
}
const plainly = (text: string): string => {
  const said = text.replace(/^Worth a look: /, "");
  return `${said[0]?.toUpperCase() ?? ""}${said.slice(1)}`;
};

export type LiveFacts = Readonly<{
  health: readonly HealthItem[];
  overlays: readonly StandingOverlay[];
  pages: readonly OpenPage[];
  games: readonly Readonly<{ id: string; kind: string; name: string; view: Readonly<Record<string, unknown>> }>[];
  plan: readonly PlanItem[];
  modules: readonly CheckModule[];
}>;

/** What is seen in how everything stands just now. */
export function liveChecks(facts: LiveFacts): readonly Check[] {
  return [...healthChecks(facts), ...pageChecks(facts), ...planChecks(facts), ...sleeping(facts)];
}

/** Connections and the like; what has no use here is left alone: a studio or events that were never set up. */
function healthChecks({ health, overlays }: LiveFacts): Check[] {
  const optional = new Set(["events", "studio"]);
  return health
    .filter((h) => h.state === "bad" || (h.state !== "good" && !optional.has(h.id)))
    .filter((h) => h.id !== "overlays" || overlays.length === 0)
    .map((h) =>
      check(
        `health.${h.id}`,
        h.state === "bad" ? "wrong" : "look",
        h.name,
        [h.says, h.means].filter((t) => t !== "").join(" "),
        h.id === "sound" ? "/prepare/overlays" : "/prepare/connections",
        h.todo === "" ? "Look at it" : h.todo.replace(/\.$/, ""),
      ),
    );
}

function pageChecks({ overlays, pages }: LiveFacts): Check[] {
  return overlays
    .filter((o) => !pages.some((p) => p.overlay === o.id))
    .map((o) =>
      check(
        `page.${o.id}`,
        "wrong",
        o.name,
        "Nobody has this overlay open: viewers see nothing of it.",
        "/prepare/overlays",
        "Copy its link into your broadcast software",
      ),
    );
}

function planChecks({ plan, games, overlays, modules }: LiveFacts): Check[] {
  const cues = new Set(booksOf(modules).cues.map((c) => c.id));
  return plan.flatMap((item) => {
    const say = (tone: Check["tone"], words: string): Check[] => [check(`plan.${item.id}`, tone, item.title, words, "/prepare/show")];
    const { does } = item;
    if (does.do === "cue" && !cues.has(does.cue)) return say("wrong", "The rundown fires a cue that is not there any more.");
    if (does.do === "note" || does.do === "cue") return [];
    const game = games.find((g) => g.id === does.game);
    if (game === undefined) return say("wrong", "The rundown names a game that is not there any more.");
    if (does.do === "act" && actionOf(game.kind, does.act) === null)
      return say("wrong", `${game.name} can’t do what the rundown asks of it.`);
    const seen = gameOf(game.kind)?.bodiless === true || overlays.some((o) => o.places.some((p) => p.game === game.id && !p.place.hidden));
    return seen || does.do === "stop" ? [] : say("look", `${game.name} stands on no overlay, so nobody will see it.`);
  });
}

/** Rewards and cues that act on a game which is off, and which the rundown does not start. */
function sleeping({ games, plan, modules }: LiveFacts): Check[] {
  const starts = new Set(plan.flatMap((i) => (i.does.do === "start" || i.does.do === "act" ? [i.does.game] : [])));
  const off = (id: string): string | null => {
    const game = games.find((g) => g.id === id);
    return game !== undefined && game.view["on"] === false && !starts.has(id) ? game.name : null;
  };
  return booksOf(modules).rewards.flatMap((r) => {
    if (!r.on) return [];
    const names = [...new Set(r.effects.flatMap((e) => ("game" in e ? [off(e.game)] : [])).filter((n) => n !== null))];
    return names.length === 0
      ? []
      : [
          check(
            `sleeps.${r.id}`,
            "look",
            r.name,
            `It is sold, but ${names.join(" and ")} is off and nothing in the rundown starts it.`,
            "/prepare/show",
            "Start it in the rundown",
          ),
        ];
  });
}
