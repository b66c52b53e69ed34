import { expect, test } from "@jest/globals";
import { emoteIndex } from "../../chat/emotes";
import { replay } from "../../module/replay";
import { bareContext } from "../../module/module";
import type { Signal } from "../../signals/signal";
import type { Viewer } from "../../signals/names";
import { bossBattle } from "./definition";
import { type BossSettings, bossSettingsSchema } from "./settings";
import { bossNoteInWords } from "./notes";

/** Short evenings, told as an operator would read them; what is said here is what the rules say. */
const viewer = (name: string): Viewer => ({ id: name.toLowerCase(), name, roles: [] });
const settings = (part: Partial<BossSettings>): BossSettings => bossSettingsSchema.parse({ ...bossBattle.defaults, health: 200, ...part });
type Part<T> = T extends unknown ? Omit<T, "seq" | "atMs" | "id"> : never;
const evening = (s: BossSettings, parts: readonly Part<Signal>[]): string[] => {
  const signals = parts.map((part, i) => ({ ...part, seq: i + 1, atMs: (i + 1) * 10_000, id: `s${i}` }) as Signal);
  return replay(bossBattle, s, signals, bareContext(emoteIndex([]))).flatMap((o) => o.notes.map(bossNoteInWords));
};
const tip = (name: string, minor: number): Part<Signal> => ({
  kind: "tip",
  viewer: viewer(name),
  amountMinor: minor,
  currency: "EUR",
  homeMinor: minor,
  text: "",
});

test("an evening with a champion who defends the throne", () => {
  expect(
    evening(settings({}), [
      { kind: "live", viewer: null },
      { kind: "follow", viewer: viewer("Mossy") },
      tip("Ferry", 500),
      { kind: "membership", viewer: viewer("Reed"), months: 4, text: "", fromGift: "" },
      { kind: "follow", viewer: viewer("Oar") },
      { kind: "follow", viewer: viewer("Reed") },
      { kind: "gift", viewer: null, count: 1, recipients: [] },
      { kind: "command", gameId: "b", by: "kilnkeeper", viewer: null, command: { do: "undo" } },
    ]),
  ).toEqual([
    "−10 to Old Spall by Mossy, 190 of 200 left",
    "−100 to Old Spall by Ferry, 90 of 200 left",
    "−100 to Old Spall by Reed, 0 of 200 left",
    "Old Spall falls; Reed takes its place with 200 health",
    "−10 to Reed by Oar, 190 of 200 left",
    "+10 to Reed by Reed, 200 of 200 left",
    "−100 to Reed by someone, 100 of 200 left",
    "the hit of 100 by someone was undone, 200 of 200 left",
  ]);
});

test("one great blow that goes through three", () => {
  expect(
    evening(settings({ carry: "strikes", growth: { ...bossBattle.defaults.growth, how: "step", step: 50 } }), [
      { kind: "raid", viewer: viewer("Gull"), viewers: 300 },
    ]),
  ).toEqual([
    "−600 to Old Spall by Gull, 0 of 200 left",
    "Old Spall falls; Gull takes its place with 250 health",
    "−400 to Gull by Gull, 0 of 250 left",
    "Gull falls; Gull takes its place with 300 health",
    "−150 to Gull by Gull, 150 of 300 left",
  ]);
});

test("an evening of refusals, each with its reason", () => {
  const s = settings({
    champion: { own: "nothing", healing: "full" },
    hits: { ...bossBattle.defaults.hits, host: { rate: { give: 0, per: 1 }, most: 0 } },
  });
  expect(
    evening(s, [
      { kind: "host", viewer: viewer("Oar"), viewers: 5 },
      { kind: "membership", viewer: viewer("Oar"), months: 1, text: "", fromGift: "g" },
      { kind: "tip", viewer: viewer("Oar"), amountMinor: 900, currency: "SEK", homeMinor: null, text: "" },
      tip("Oar", 3),
      { kind: "raid", viewer: viewer("Oar"), viewers: 100 },
      { kind: "follow", viewer: viewer("Oar") },
      { kind: "command", gameId: "b", by: "op", viewer: null, command: { do: "undo" } },
      { kind: "command", gameId: "b", by: "op", viewer: null, command: { do: "heal", amount: 5 } },
      { kind: "command", gameId: "b", by: "op", viewer: null, command: { do: "switch", on: false } },
      { kind: "follow", viewer: viewer("Reed") },
    ]),
  ).toEqual([
    "hosting does no damage here",
    "not counted again: the gift it came from was",
    "the channel has no rate for SEK, so it does no damage",
    "too little for damage yet; it is kept and added to the viewer’s next one",
    "−200 to Old Spall by Oar, 0 of 200 left",
    "Old Spall falls; Oar takes its place with 200 health",
    "the champion’s own does nothing",
    "there is no hit to undo: the last one led to a fall, or was undone already. Set it right with a hit or a heal",
    "Oar is at full health already",
    "the boss battle was switched off",
    "the boss battle is switched off",
  ]);
});
