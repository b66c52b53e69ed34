import { describe, expect, test } from "@jest/globals";
import { chipsOf } from "../../../core/chips";
import type { Note } from "../../../core/module/module";
import type { TalkItem } from "../../../core/wire/messages";
import { withTalk } from "../../_frame/talk";
import { passes, takeBack } from "./talk-rows";

const kinds: Record<string, string> = { wall: "emote-wall", boss: "boss-battle", book: "rules", show: "show" };
const item = (n: number, notes: [string, Note][] = [], kind = "message"): TalkItem => ({
  n,
  seq: n,
  atMs: 0,
  kind,
  name: "Ada",
  viewer: { id: "ada", roles: [] },
  text: "hello",
  notes: notes.map(([game, note]) => ({ game, note })),
});
const no = (code: string, facts = {}): Note => ({ refusal: { code, facts }, count: 1 });
const chips = (...notes: [string, Note][]) => chipsOf(item(1, notes), (g) => kinds[g] ?? "");

describe("consequences beside a message", () => {
  test("say in a word what came of it, and why not", () => {
    const hit: Note = { did: "boss/hit", count: 1_200, subject: "Ada", facts: { boss: "Old Spall", health: 3, max: 9, seq: 1 } };
    expect(
      chips(
        ["wall", { did: "wall/shown", count: 3, facts: { seq: 1 } }],
        ["boss", hit],
        ["wall", no("wall/viewer-limit", { most: 4, withinS: 30, freeInS: 12 })],
        ["show", no("viewer/muted")],
      ).map((c) => [c.short, c.tone]),
    ).toEqual([
      ["wall ×3", "good"],
      ["−1,200 Old Spall", "spent"],
      ["1 held back", "no"],
      ["muted", "no"],
    ]);
  });
  test("what is true of nearly every line stays unsaid, and so do rules that were not meant", () => {
    expect(chips(["wall", no("wall/no-emotes")], ["wall", no("wall/off")], ["book", no("rule/tier", { amount: 3 })])).toEqual([]);
  });
  test("each can be explained in a sentence", () => {
    for (const c of chips(["wall", no("wall/combo-waiting", { seen: 2, needed: 3, withinS: 10 })], ["boss", no("boss/champion-idle")]))
      expect(c.words.length).toBeGreaterThan(10);
  });
  test("a hit is undone by its own signal, emotes are taken off by theirs; a refusal has nothing to take back", () => {
    const [shown, struck, held] = chips(
      ["wall", { did: "wall/shown", count: 3, facts: { seq: 41 } }],
      ["boss", { did: "boss/hit", count: 10, facts: { seq: 42 } }],
      ["boss", no("boss/champion-idle")],
    );
    expect(takeBack(shown!)).toMatchObject([{ command: { do: "remove", seq: 41 } }]);
    expect(takeBack(struck!)).toMatchObject([{ command: { do: "undo", seq: 42 } }, { command: { do: "heal", amount: 10 } }]);
    expect(takeBack(held!)).toEqual([]);
  });
  test("filters show what had an effect, or what was refused", () => {
    const [effect, refused, none] = [
      item(1, [["wall", { did: "wall/shown", count: 1 }]]),
      item(2, [["show", no("viewer/muted")]]),
      item(3),
    ] as const;
    const kept = (filter: "all" | "effects" | "refused") =>
      [effect, refused, none]
        .filter((i) =>
          passes(
            filter,
            i,
            chipsOf(i, (g) => kinds[g] ?? ""),
          ),
        )
        .map((i) => i.n);
    expect([kept("all"), kept("effects"), kept("refused")]).toEqual([[1, 2, 3], [1], [2]]);
  });
});

describe("the talk of a page", () => {
  test("shows nothing twice after a reconnection, and goes on after a restart of the engine", () => {
    let talk = withTalk({ epoch: "", items: [], left: 0 }, "a", [item(1), item(2)], 0);
    talk = withTalk(talk, "a", [item(1), item(2), item(3)], 0);
    expect(talk.items.map((i) => i.n)).toEqual([1, 2, 3]);
    talk = withTalk(talk, "b", [item(1)], 5);
    expect(talk.items.map((i) => i.n)).toEqual([1, 2, 3, 1]);
    expect(talk.left).toBe(5);
  });
  test("keeps so much and no more", () => {
    const many = Array.from({ length: 5_000 }, (_, i) => item(i + 1));
    expect(withTalk({ epoch: "a", items: [], left: 0 }, "a", many, 0).items).toHaveLength(2_000);
  });
});
