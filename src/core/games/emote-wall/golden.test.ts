import { describe, expect, test } from "@jest/globals";
import { bareContext } from "../../module/module";
import { emoteIndex } from "../../chat/emotes";
import { replay } from "../../module/replay";
import type { Command, Signal } from "../../signals/signal";
import { freshWallTransient, mostUsed, type Usage, withUsage } from "./transient";
import { emoteWall } from "./definition";
import { wallDefaults, wallSettingsSchema } from "./settings";
import { wallNoteInWords } from "./notes";

/**
 * Golden replays: an evening in a few lines, and what stands after each. `who@seconds: text`, or a hand.
 */
const ctx = {
  ...bareContext(emoteIndex([])),
  emotes: emoteIndex([
    { id: "w", word: "wobblePot" },
    { id: "k", word: "kilnGlow" },
  ]),
  salt: 1,
};

function evening(script: string): Signal[] {
  return script
    .trim()
    .split("\n")
    .map((line, i): Signal => {
      const [, who = "", at = "0", text = ""] = /^\s*(\S+)@([\d.]+): (.*)$/.exec(line) ?? [];
      const head = { seq: i + 1, atMs: Number(at) * 1_000, id: `g${i}` };
      if (who === "command") {
        const flock: Command = { do: "flock", count: 12, overMs: 500, emotes: { from: "most-used", chosen: [] }, motion: "", trim: "" };
        const command: Command = text === "flock" ? flock : text === "clear" ? { do: "clear" } : { do: "switch", on: text === "on" };
        return { ...head, kind: "command", gameId: "wall", by: "owner", viewer: null, command };
      }
      const [name = "", role] = who.split("/");
      return { ...head, kind: "message", viewer: { id: name, name, roles: role === "member" ? ["member"] : [] }, text, marks: [] };
    });
}
const told = (settings: unknown, script: string): string[] =>
  replay(emoteWall, wallSettingsSchema.parse(settings), evening(script), ctx).map(
    (o) =>
      `${o.durable.on ? "on" : "off"} | ${o.effects.map((e) => (e.do === "spawn" ? `${e.count} of ${[...new Set(e.keys)].join("+")}` : e.do)).join(", ")} | ${o.notes.map(wallNoteInWords).join("; ")}`,
  );

describe("golden replays", () => {
  test("an ordinary evening", () => {
    expect(
      told(
        { ...wallDefaults, mostPerMessage: 3, perViewer: { on: true, most: 4, withinMs: 30_000 } },
        `
        ada@0: hello everybody
        ada@1: wobblePot what a rim
        bo@2: kilnGlow kilnGlow kilnGlow kilnGlow
        bo@3: kilnGlow 🔥
        ada@4: WOBBLEPOT
        command@5: flock
        command@6: off
        ada@7: wobblePot
        command@8: on
        bo@33: kilnGlow
        `,
      ),
    ).toEqual([
      "on |  | no emote found in the message",
      "on | 1 of own:w | 1 emote shown",
      "on | 3 of own:k | 3 emotes shown; 1 emote left out: at most 3 per message",
      "on | 1 of own:k | 1 emote shown; 1 emote left out: at most 4 per viewer within 30 s; next in 29 s",
      "on | 1 of own:w | 1 emote shown",
      "on | 12 of own:k+own:w+emoji:🔥 | a flock of 12",
      "off | clear | the wall was switched off",
      "off |  | the wall is switched off",
      "on |  | the wall was switched on",
      "on | 1 of own:k | 1 emote shown",
    ]);
  });
  test("an evening of combos, members apart", () => {
    expect(
      told(
        {
          ...wallDefaults,
          singles: false,
          perViewer: { ...wallDefaults.perViewer, on: false },
          combo: { on: true, needed: 3, withinMs: 10_000, counted: "viewers", spawns: "all", roles: ["member"], emoji: true },
        },
        `
        ada@0: kilnGlow
        ada/member@1: kilnGlow kilnGlow
        bo/member@2: kilnGlow
        cy/member@12: kilnGlow
        bo/member@12.5: kilnGlow
        dee/member@13: kilnGlow wobblePot
        `,
      ),
    ).toEqual([
      "on |  | 1 single emote left out: singles are off",
      "on |  | 1 copy not counted: each viewer counts once; kilnGlow: not yet, 1 of 3 within 10 s",
      "on |  | kilnGlow: not yet, 2 of 3 within 10 s",
      "on |  | kilnGlow: not yet, 1 of 3 within 10 s",
      "on |  | kilnGlow: not yet, 2 of 3 within 10 s",
      "on | 3 of own:k | 3 emotes shown; wobblePot: not yet, 1 of 3 within 10 s",
    ]);
  });
});

describe("what was written most", () => {
  const write = (usage: Usage, key: string, times: number, atMs: number): Usage =>
    Array.from({ length: times }).reduce<Usage>((u) => withUsage(u, [key], atMs), usage);
  test("counts over minutes, most first, ties by key, twelve at most", () => {
    let usage = freshWallTransient().usage;
    usage = write(usage, "own:b", 3, 1_000);
    usage = write(usage, "own:a", 3, 2_000);
    usage = write(usage, "own:c", 90, 3_000);
    expect(mostUsed(usage, 4_000, 1)).toEqual(["own:c", "own:a", "own:b"]);
    for (let i = 0; i < 30; i += 1) usage = write(usage, `own:x${i}`, 1, 5_000);
    expect(mostUsed(usage, 6_000, 1)).toHaveLength(12);
  });
  test("what is older than the minutes asked for no longer counts, and is dropped in time", () => {
    let usage = write(freshWallTransient().usage, "own:old", 60, 0);
    usage = write(usage, "own:new", 60, 300_000);
    expect(mostUsed(usage, 301_000, 1)).toEqual(["own:new"]);
    expect(mostUsed(usage, 301_000, 10)).toEqual(["own:new", "own:old"]);
    usage = write(usage, "own:newest", 60, 2_000_000);
    expect(Object.keys(usage.buckets)).toHaveLength(1);
  });
  test("a storm of ever other emotes stays bounded", () => {
    let usage = freshWallTransient().usage;
    for (let i = 0; i < 3_000; i += 1) usage = withUsage(usage, [`emoji:${i}`], 1_000);
    expect(Object.values(usage.buckets).every((b) => Object.keys(b).length <= 500)).toBe(true);
    expect(JSON.parse(JSON.stringify(usage))).toEqual(usage);
  });
});
