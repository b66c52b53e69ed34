import { gameOf } from "../../../../core/games/registry";
import { startOf } from "../../../../core/module/fields";
import type { RuleEffect } from "../../../../core/rules/effects";
import type { When } from "../../../../core/rules/settings";
import { alertLookDefaults } from "../../../../core/alerts/alert";
import type { Sprite } from "../../../../core/wire/messages";
import type { Names } from "../../../../core/rules/words";

/** What effects can name: the channel's games, props and emotes. */
export type Parts = Readonly<{
  games: readonly Readonly<{ id: string; kind: string; name: string }>[];
  props: readonly Readonly<{ id: string; name: string; kind: "picture" | "sound"; url: string; ms: number }>[];
  emotes: readonly Sprite[];
  pictures: readonly Sprite[];
  queues: readonly Readonly<{ id: string; name: string }>[];
  cues: readonly Readonly<{ id: string; name: string }>[];
  home: string;
}>;

export const namesOf = (parts: Parts, home = parts.home): Names => ({
  game: (id) => parts.games.find((g) => g.id === id)?.name ?? null,
  kind: (id) => parts.games.find((g) => g.id === id)?.kind ?? "",
  cue: (id) => parts.cues.find((c) => c.id === id)?.name ?? null,
  prop: (id) => parts.props.find((p) => p.id === id)?.name ?? null,
  home,
});
export const bookFacts = (parts: Parts) => ({ games: parts.games, props: parts.props });

export const propChoices = (parts: Parts) => (kind: "picture" | "sound") => [
  { value: "", words: kind === "picture" ? "no picture" : "no sound" },
  ...parts.props.filter((p) => p.kind === kind).map((p) => ({ value: p.id, words: p.name })),
];
export const queueChoices = (parts: Parts) => [
  { value: "", words: "at once, beside all else" },
  ...parts.queues.map((l) => ({ value: l.id, words: `in its turn: ${l.name.toLowerCase()}` })),
];

export type EffectChoice = Readonly<{ value: string; words: string; make: () => RuleEffect }>;
/** What can be chosen to happen: what every channel can do, and what its games can. */
export function effectChoices(parts: Parts, when: When | "cue"): readonly EffectChoice[] {
  const queue = parts.queues[0]?.id ?? "";
  const kinds = [...new Set(parts.games.map((g) => g.kind))];
  const ofGames = kinds.flatMap((kind) =>
    Object.entries(gameOf(kind)?.actions ?? {})
      .filter(([, action]) => action.byRule !== false && action.onlyThere !== true)
      .map(([act, action]): EffectChoice => ({
        value: `${kind}/${act}`,
        words: `${gameOf(kind)?.name ?? kind}: ${action.label.toLowerCase()}`,
        make: () => ({ do: "act", game: parts.games.find((g) => g.kind === kind)?.id ?? "", act, input: startOf(action.input), per: 1 }),
      })),
  );
  return [
    {
      value: "show",
      words: "show a picture or text",
      make: () => ({ do: "show", picture: "", sound: "", volume: 80, text: "", ms: 5_000, queue, look: alertLookDefaults }),
    },
    {
      value: "sound",
      words: "play a sound",
      make: () => ({ do: "sound", sound: parts.props.find((p) => p.kind === "sound")?.id ?? "", volume: 80, queue }),
    },
    { value: "say", words: "say something in chat", make: () => ({ do: "say", text: "" }) },
    ...ofGames,
    ...(parts.games.length === 0
      ? []
      : [
          {
            value: "switch",
            words: "start or stop a game",
            make: (): RuleEffect => ({ do: "switch", game: parts.games[0]?.id ?? "", on: true }),
          },
        ]),
    ...(when === "cue" || parts.cues.length === 0
      ? []
      : [{ value: "cue", words: "fire a cue", make: (): RuleEffect => ({ do: "cue", cue: parts.cues[0]?.id ?? "" }) }]),
    { value: "wait", words: "wait", make: () => ({ do: "wait", ms: 2_000 }) },
  ];
}
