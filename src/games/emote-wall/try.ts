import { crowd } from "../../core/lab/crowd";
import type { WallSettings } from "../../core/games/emote-wall/settings";
import type { Role } from "../../core/signals/signal";
import type { Sprite } from "../../core/wire/messages";
import type { TryButton, Tried } from "../sheet";

const emoji = ["🔥", "🏺", "💛", "🌊", "👏"];
const names = [
  "mossy_teapot",
  "quietferry",
  "tin_lantern",
  "hollowreed",
  "oatcake_ada",
  "ferrule7",
  "pale_oar",
  "smallharbour",
  "eelgrass",
  "loamy",
];
const ownOf = (sprites: readonly Sprite[]): readonly Sprite[] => sprites.filter((s) => s.key.startsWith("own:"));
const palette = (sprites: readonly Sprite[]): readonly string[] => (ownOf(sprites).length > 0 ? ownOf(sprites).map((s) => s.word) : emoji);
const cycle = <T>(items: readonly T[], n: number): T | undefined => items[n % items.length];

const message = (name: string, text: string, roles: readonly Role[] = []) => ({
  kind: "message" as const,
  viewer: { id: name, name, roles },
  text,
  marks: [],
});

/** A message as the operator typed it. */
export const tryMessage = (text: string, as: Role): Tried => ({
  says: `“${text.length > 40 ? `${text.slice(0, 40)}…` : text}”`,
  signals: [{ afterMs: 0, signal: message("mossy_teapot", text, as === "viewer" ? [] : [as]) }],
});

/** The strip under the preview: everything a wall can meet, without a second account. */
export const wallTries: readonly TryButton[] = [
  {
    id: "one",
    label: "One emote",
    key: "q",
    make: ({ sprites }, times) => {
      const word = cycle(palette(sprites), times) ?? "🔥";
      return { says: `one message with ${word}`, signals: [{ afterMs: 0, signal: message(cycle(names, times) ?? "viewer", word) }] };
    },
  },
  {
    id: "many",
    label: "One message with many",
    key: "w",
    make: ({ sprites }, times) => {
      const words = palette(sprites);
      const text = Array.from({ length: 12 }, (_, i) => cycle(words, times + (i % 4)) ?? "").join(" ");
      return { says: "one message with 12 emotes", signals: [{ afterMs: 0, signal: message(cycle(names, times) ?? "viewer", text) }] };
    },
  },
  {
    id: "ten",
    label: "Ten viewers at once",
    key: "e",
    make: ({ sprites }, times) => {
      const word = cycle(palette(sprites), times) ?? "🔥";
      return { says: `ten viewers write ${word}`, signals: names.map((name, i) => ({ afterMs: i * 90, signal: message(name, word) })) };
    },
  },
  {
    id: "storm",
    label: "A storm",
    key: "r",
    make: ({ sprites }, times) => {
      const says = crowd(
        { seed: 11 + times, perSecond: 80, emoteShare: 0.9, copyShare: 0.4, rushesPerMinute: 0, givesPerMinute: 0 },
        {
          viewers: Array.from({ length: 200 }, (_, i) => `viewer${i}`),
          emotes: [...palette(sprites), ...emoji],
          lines: ["that rim!", "good pull"],
        },
      );
      const signals: { afterMs: number; signal: ReturnType<typeof message> }[] = [];
      for (const line of says) {
        if (line.atMs > 5_000) break;
        signals.push({ afterMs: line.atMs, signal: message(line.viewer, line.text) });
      }
      return { says: `a storm: ${signals.length} messages in 5 s`, signals };
    },
  },
  {
    id: "flock",
    label: "A flock",
    key: "t",
    make: ({ settings, sprites }) => {
      // The editor hands over settings that the game's own schema has accepted.
      const { flock } = settings as WallSettings;
      const own =
        ownOf(sprites).length > 0
          ? ownOf(sprites)
              .slice(0, 6)
              .map((s) => s.key)
          : emoji.map((e) => `emoji:${e}`);
      const chosen = flock.from === "chosen" ? flock.chosen : own;
      return {
        says: flock.from === "chosen" ? "a flock of the chosen emotes" : "a flock, as if the channel’s first emotes were written most",
        signals: [
          {
            afterMs: 0,
            signal: {
              kind: "hand" as const,
              gameId: "preview",
              by: "preview",
              viewer: null,
              hand: {
                do: "flock" as const,
                count: flock.count,
                overMs: flock.overMs,
                from: "chosen" as const,
                chosen: [...chosen],
                motion: flock.motion,
              },
            },
          },
        ],
      };
    },
  },
];
