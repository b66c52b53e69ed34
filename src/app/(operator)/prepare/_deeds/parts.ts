import type { Deed } from "../../../../core/rules/deeds";
import { momentLookDefaults } from "../../../../core/moments/moment";
import type { Sprite } from "../../../../core/wire/messages";
import type { Names } from "../../../../core/rules/words";

/** What deeds can name: the channel's games, props and emotes. */
export type Parts = Readonly<{
  games: readonly Readonly<{ id: string; kind: string; name: string }>[];
  props: readonly Readonly<{ id: string; name: string; kind: "picture" | "sound"; url: string; ms: number }>[];
  emotes: readonly Sprite[];
  pictures: readonly Sprite[];
  lanes: readonly Readonly<{ id: string; name: string }>[];
  cues: readonly Readonly<{ id: string; name: string }>[];
  home: string;
}>;

export const namesOf = (parts: Parts, home = parts.home): Names => ({
  game: (id) => parts.games.find((g) => g.id === id)?.name ?? null,
  cue: (id) => parts.cues.find((c) => c.id === id)?.name ?? null,
  prop: (id) => parts.props.find((p) => p.id === id)?.name ?? null,
  home,
});
export const bookFacts = (parts: Parts) => ({ games: parts.games, props: parts.props });

export const deedKinds: readonly Readonly<{ kind: Deed["do"]; words: string }>[] = [
  { kind: "show", words: "show a picture or text" },
  { kind: "sound", words: "play a sound" },
  { kind: "flock", words: "send a flock of emotes" },
  { kind: "damage", words: "hit or heal a boss" },
  { kind: "say", words: "say something in chat" },
  { kind: "tell-rules", words: "tell a game’s rules in chat" },
  { kind: "switch", words: "start or stop a game" },
  { kind: "cue", words: "fire a cue" },
  { kind: "wait", words: "wait" },
];

export function newDeed(kind: Deed["do"], parts: Parts): Deed {
  const first = (of: string): string => parts.games.find((g) => g.kind === of)?.id ?? "";
  const lane = parts.lanes[0]?.id ?? "";
  switch (kind) {
    case "show":
      return { do: "show", picture: "", sound: "", volume: 80, text: "", ms: 5_000, lane, look: momentLookDefaults };
    case "sound":
      return { do: "sound", sound: parts.props.find((p) => p.kind === "sound")?.id ?? "", volume: 80, lane };
    case "flock":
      return { do: "flock", game: first("emote-wall"), count: 60, overMs: 2_000, from: "most-used", chosen: [], motion: "" };
    case "damage":
      return { do: "damage", game: first("boss-battle"), how: "damage", rate: { give: 10, per: 1 } };
    case "say":
      return { do: "say", text: "" };
    case "tell-rules":
      return { do: "tell-rules", game: first("boss-battle") };
    case "switch":
      return { do: "switch", game: parts.games[0]?.id ?? "", on: true };
    case "cue":
      return { do: "cue", cue: parts.cues[0]?.id ?? "" };
    case "wait":
      return { do: "wait", ms: 2_000 };
  }
}
