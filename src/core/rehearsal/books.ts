import { type Cue, cueBookSchema } from "../cues/settings";
import { type Reward, rewardBookSchema } from "../rewards/settings";
import { type Rulebook, rulebookSchema } from "../rules/settings";

/** What of a channel's modules is a list of things: empty where there is none, or this version can't read it. */
export type Books = Readonly<{
  rules: Rulebook["rules"];
  queues: Rulebook["queues"];
  cues: readonly Cue[];
  rewards: readonly Reward[];
  /** Whole, for whoever looks for what is wrong in it; null for none. */
  rulebook: Rulebook | null;
}>;
export function booksOf(modules: readonly Readonly<{ kind: string; settings: unknown }>[]): Books {
  const settings = (kind: string): unknown => modules.find((m) => m.kind === kind)?.settings;
  const rules = rulebookSchema.safeParse(settings("rules"));
  const cues = cueBookSchema.safeParse(settings("cues"));
  const rewards = rewardBookSchema.safeParse(settings("rewards"));
  return {
    rules: rules.success ? rules.data.rules : [],
    queues: rules.success ? rules.data.queues : [],
    cues: cues.success ? cues.data.cues : [],
    rewards: rewards.success ? rewards.data.rewards : [],
    rulebook: rules.success ? rules.data : null,
  };
}
