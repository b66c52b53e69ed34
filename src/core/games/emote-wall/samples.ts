import { crowd } from "../../lab/crowd";
import type { Sample } from "../../module/game";
import { commanded, one, said, sampleNames, sampleViewer } from "../../module/samples";
import type { Sprite } from "../../wire/messages";
import type { WallSettings } from "./settings";

const emoji = ["🔥", "🏺", "💛", "🌊", "👏"];
const ownOf = (sprites: readonly Sprite[]): readonly Sprite[] => sprites.filter((s) => s.key.startsWith("own:"));
const palette = (sprites: readonly Sprite[]): readonly string[] => (ownOf(sprites).length > 0 ? ownOf(sprites).map((s) => s.word) : emoji);
const wordOf = (sprites: readonly Sprite[], n: number): string => palette(sprites)[n % palette(sprites).length] ?? "🔥";

/** Everything a wall can meet, without a second account. */
export const wallSamples: readonly Sample[] = [
  {
    id: "one",
    label: "One emote",
    key: "q",
    weight: 8,
    make: ({ sprites, times }) => one(`one message with ${wordOf(sprites, times)}`, said(sampleViewer(times), wordOf(sprites, times))),
  },
  {
    id: "many",
    label: "One message with many",
    key: "w",
    weight: 3,
    make: ({ sprites, times }) =>
      one(
        "one message with 12 emotes",
        said(sampleViewer(times), Array.from({ length: 12 }, (_, i) => wordOf(sprites, times + (i % 4))).join(" ")),
      ),
  },
  {
    id: "ten",
    label: "Ten viewers at once",
    key: "e",
    weight: 2,
    make: ({ sprites, times }) => ({
      says: `ten viewers write ${wordOf(sprites, times)}`,
      signals: sampleNames.map((_, i) => ({ afterMs: i * 90, signal: said(sampleViewer(i), wordOf(sprites, times)) })),
    }),
  },
  {
    id: "storm",
    label: "A storm",
    key: "r",
    // It is a crowd itself.
    weight: 0,
    make: ({ sprites, times }) => {
      const lines = crowd(
        { seed: 11 + times, perSecond: 80, emoteShare: 0.9, copyShare: 0.4, rushesPerMinute: 0, givesPerMinute: 0 },
        {
          viewers: Array.from({ length: 200 }, (_, i) => `viewer${i}`),
          emotes: [...palette(sprites), ...emoji],
          lines: ["that rim!", "good pull"],
        },
      );
      const signals: { afterMs: number; signal: ReturnType<typeof said> }[] = [];
      for (const line of lines) {
        if (line.atMs > 5_000) break;
        signals.push({ afterMs: line.atMs, signal: said({ id: line.viewer, name: line.viewer, roles: [] }, line.text) });
      }
      return { says: `a storm: ${signals.length} messages in 5 s`, signals };
    },
  },
  {
    id: "flock",
    label: "A flock",
    key: "t",
    weight: 1,
    make: ({ settings, sprites }) => {
      // Settings that the game's own schema has accepted.
      const { flock } = settings as WallSettings;
      const own =
        ownOf(sprites).length > 0
          ? ownOf(sprites)
              .slice(0, 6)
              .map((s) => s.key)
          : emoji.map((e) => `emoji:${e}`);
      const chosen = flock.from === "chosen" ? flock.chosen : own;
      return one(
        flock.from === "chosen" ? "a flock of the chosen emotes" : "a flock, as if the channel’s first emotes were written most",
        commanded({
          do: "flock",
          count: flock.count,
          overMs: flock.overMs,
          emotes: { from: "chosen", chosen: [...chosen] },
          motion: flock.motion,
          trim: "",
        }),
      );
    },
  },
];
