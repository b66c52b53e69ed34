import { frontOf } from "../../../../core/games/fronts";
import { startOf } from "../../../../core/module/field-of";
import type { RuleEffect } from "../../../../core/rules/effect";
import type { When } from "../../../../core/rules/settings";
import { alertLookDefaults } from "../../../../core/alerts/alert";
import type { Sprite } from "../../../../core/wire/messages";
import type { Names } from "../../../../core/rules/notes";

/** What effects can name: the channel's games, props and emotes. */
export type Available = Readonly<{
  games: readonly Readonly<{ id: string; kind: string; name: string; lists: Readonly<Record<string, readonly string[]>> }>[];
  props: readonly Readonly<{ id: string; name: string; kind: "picture" | "sound"; url: string; ms: number }>[];
  emotes: readonly Sprite[];
  pictures: readonly Sprite[];
  queues: readonly Readonly<{ id: string; name: string }>[];
  cues: readonly Readonly<{ id: string; name: string }>[];
  home: string;
}>;

export const namesOf = (available: Available, home = available.home): Names => ({
  game: (id) => available.games.find((g) => g.id === id)?.name ?? null,
  kind: (id) => available.games.find((g) => g.id === id)?.kind ?? "",
  cue: (id) => available.cues.find((c) => c.id === id)?.name ?? null,
  prop: (id) => available.props.find((p) => p.id === id)?.name ?? null,
  home,
});
export const bookFacts = (available: Available) => ({ games: available.games, props: available.props });

export const propChoices = (available: Available) => (kind: "picture" | "sound") => [
  { value: "", words: kind === "picture" ? "no picture" : "no sound" },
  ...available.props.filter((p) => p.kind === kind).map((p) => ({ value: p.id, words: p.name })),
];
export const queueChoices = (available: Available) => [
  { value: "", words: "at once, beside all else" },
  ...available.queues.map((l) => ({ value: l.id, words: `in its turn: ${l.name.toLowerCase()}` })),
];

export type EffectChoice = Readonly<{ value: string; words: string; make: () => RuleEffect }>;
/** What can be chosen to happen: what every channel can do, and what its games can. */
export function effectChoices(available: Available, when: When | "cue"): readonly EffectChoice[] {
  const queue = available.queues[0]?.id ?? "";
  const kinds = [...new Set(available.games.map((g) => g.kind))];
  const ofGames = kinds.flatMap((kind) =>
    Object.entries(frontOf(kind)?.actions ?? {})
      .filter(([, action]) => action.byRule !== false && action.onlyThere !== true)
      .map(([act, action]): EffectChoice => ({
        value: `${kind}/${act}`,
        words: `${frontOf(kind)?.name ?? kind}: ${action.label.toLowerCase()}`,
        make: () => ({
          do: "act",
          game: available.games.find((g) => g.kind === kind)?.id ?? "",
          act,
          input: startOf(action.input),
          per: 1,
        }),
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
      make: () => ({ do: "sound", sound: available.props.find((p) => p.kind === "sound")?.id ?? "", volume: 80, queue }),
    },
    { value: "say", words: "say something in chat", make: () => ({ do: "say", text: "" }) },
    ...ofGames,
    ...(available.games.length === 0
      ? []
      : [
          {
            value: "switch",
            words: "start or stop a game",
            make: (): RuleEffect => ({ do: "switch", game: available.games[0]?.id ?? "", on: true }),
          },
        ]),
    ...(when === "cue" || available.cues.length === 0
      ? []
      : [{ value: "cue", words: "fire a cue", make: (): RuleEffect => ({ do: "cue", cue: available.cues[0]?.id ?? "" }) }]),
    { value: "wait", words: "wait", make: () => ({ do: "wait", ms: 2_000 }) },
  ];
}
