import { commandBookSchema } from "../../core/commands/settings";
import { cueBookSchema } from "../../core/cues/settings";
import { gameOf } from "../../core/games/registry";
import type { ChannelId } from "../../core/kernel/ids";
import { rewardBookSchema } from "../../core/rewards/settings";
import { rulebookSchema } from "../../core/rules/settings";
import type { OperatorStore } from "../ports/operator-store";
import { draftOf } from "./books";

/** Something of the channel that can be looked for: what it is called, what it is, and where it stands. */
export type FoundThing = Readonly<{ label: string; group: string; about: string; words: string; path: string }>;

/** All that a channel has, by name. What can't be read is not found, and says so on its own page. */
export async function findThings(store: OperatorStore, channel: ChannelId): Promise<readonly FoundThing[]> {
  const [modules, overlays, props, emotes] = await Promise.all([
    store.games.games(channel),
    store.overlays.overlays(channel),
    store.props.props(channel),
    store.emotes.emotes(channel),
  ]);
  const settingsOf = async (kind: string): Promise<unknown> => (await draftOf(store, channel, kind))?.settings;
  const [rules, cues, commands, rewards] = await Promise.all(["rules", "cues", "commands", "rewards"].map(settingsOf));
  const thing = (group: string, path: string, label: string, about = "", words = ""): FoundThing => ({ group, path, label, about, words });
  const open = (path: string, id: string): string => `${path}?open=${encodeURIComponent(id)}`;
  const ruleBook = rulebookSchema.safeParse(rules);
  const cueBook = cueBookSchema.safeParse(cues);
  const commandBook = commandBookSchema.safeParse(commands);
  const rewardBook = rewardBookSchema.safeParse(rewards);
  return [
    ...modules.flatMap((m) => {
      const game = gameOf(m.kind);
      return game === null ? [] : [thing("Games", `/prepare/games/${m.id}`, m.name, game.name)];
    }),
    ...overlays.map((o) => thing("Overlays", `/prepare/overlays/${o.id}`, o.name, "stage")),
    ...(cueBook.success ? cueBook.data.cues.map((c) => thing("Cues", open("/prepare/cues", c.id), c.name, "cue", c.word)) : []),
    ...(rewardBook.success
      ? rewardBook.data.rewards.map((r) =>
          thing("Rewards", open("/prepare/rewards", r.id), r.name, "reward", [r.category, ...r.words].join(" ")),
        )
      : []),
    ...(ruleBook.success
      ? ruleBook.data.rules.map((r) => thing("Rules", open("/prepare/rules", r.id), r.name || "Rule", "rule", r.words.list.join(" ")))
      : []),
    ...(commandBook.success
      ? commandBook.data.commands.map((c) =>
          thing("Commands", open("/prepare/commands", c.id), c.words[0] ?? "", "command", `${c.words.join(" ")} ${c.about}`),
        )
      : []),
    ...props.map((p) => thing("Pictures and sounds", open("/prepare/props", p.id), p.name, p.kind)),
    ...emotes.map((e) => thing("Emotes", "/prepare/emotes", e.sprite.word, "emote")),
  ];
}
