import { isGame } from "../../core/games/fronts";
import { cueBookSchema } from "../../core/cues/settings";
import type { ChannelId } from "../../core/kernel/ids";
import { rewardBookSchema } from "../../core/rewards/settings";
import type { RuleEffect } from "../../core/rules/effect";
import { putInPlace } from "../../core/rules/put-in-place";
import { rulebookSchema } from "../../core/rules/settings";
import { showSettingsSchema } from "../../core/show/settings";
import type { OperatorStore } from "../ports/operator-store";
import { draftOf } from "./books";

/** Where something is used, in words: “the rule Tips”. */
export type Use = Readonly<{ words: string; path: string }>;

/** Where a game is used: on which overlays it stands, and what does something with it. */
export async function usesOfGame(store: OperatorStore, channel: ChannelId, game: string): Promise<readonly Use[]> {
  const overlays = await store.overlays.overlays(channel);
  const settingsOf = async (kind: string): Promise<unknown> => (await draftOf(store, channel, kind))?.settings;
  const [rules, cues, rewards, show] = await Promise.all(["rules", "cues", "rewards", "show"].map(settingsOf));
  const does = (effects: readonly RuleEffect[]): boolean => effects.some((d) => "game" in d && d.game === game);
  const others = (await store.games.games(channel)).filter((g) => g.id !== game && isGame(g.kind));
  const drafts = await Promise.all(others.map(async (g) => ({ ...g, settings: (await store.games.draft(channel, g.id))?.settings })));
  const ruleBook = rulebookSchema.safeParse(rules);
  const cueBook = cueBookSchema.safeParse(cues);
  const rewardBook = rewardBookSchema.safeParse(rewards);
  const showBook = showSettingsSchema.safeParse(show);
  return [
    ...overlays.filter((o) => o.games.includes(game)).map((o) => ({ words: `the overlay “${o.name}”`, path: `/prepare/overlays/${o.id}` })),
    ...(ruleBook.success ? ruleBook.data.rules : [])
      .filter((r) => r.tiers.some((t) => does(t.effects)))
      .map((r) => ({ words: `the rule “${r.name || "without a name"}”`, path: `/prepare/rules?open=${r.id}` })),
    ...(cueBook.success ? cueBook.data.cues : [])
      .filter((c) => does([...c.effects, ...c.offEffects]))
      .map((c) => ({ words: `the cue “${c.name}”`, path: `/prepare/cues?open=${c.id}` })),
    ...(rewardBook.success ? rewardBook.data.rewards : [])
      .filter((r) => does(r.effects))
      .map((r) => ({ words: `the reward “${r.name}”`, path: `/prepare/rewards?open=${r.id}` })),
    // Games whose own settings do something with it.
    ...drafts
      .filter((g) => putInPlace(g.settings, game, "") !== g.settings)
      .map((g) => ({ words: `the game “${g.name}”`, path: `/prepare/games/${g.id}` })),
    ...(showBook.success ? showBook.data.commands : [])
      .filter((c) => c.game === game)
      .map((c) => ({ words: `the moderators’ word “${c.word}”`, path: "/prepare/show" })),
  ];
}
