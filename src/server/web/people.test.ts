import { afterAll, beforeAll, describe, expect, test } from "@jest/globals";
import type { ChannelId } from "../../core/kernel/ids";
import { ok, refused } from "../../core/kernel/refusal";
import type { Command } from "../../core/signals/signal";
import type { WebServices } from "../composition/web";
import { hashToken } from "../secrets";
import { nowMs, setupCode, testWeb } from "../testing/web";
import { setUp } from "./accounts";
import { readList, importPoints } from "./people";

let web: WebServices;
let channel: ChannelId;
let end: () => Promise<void>;
beforeAll(async () => {
  ({ web, end } = await testWeb("people_lists"));
  const opened = await setUp(web, { code: setupCode, login: "Weaver", password: "a long password", channel: "Loom" }, "1.1.1.1");
  if (!opened.ok) throw new Error(opened.refusal.code);
  channel = (await web.store.accounts.session(hashToken(opened.value.token), nowMs))!.channelId;
});
afterAll(() => end());
const lines = async (text: string) => {
  const read = await readList(web, channel, text);
  if (!read.ok) throw new Error(read.refusal.code);
  return read.value.lines.map((l) => (l.problem === "" ? [l.id, l.points] : l.problem));
};

describe("a list of names and points", () => {
  test("with a header in any order and any capitals, with an id or without, or two columns alone", async () => {
    const both = [
      ["ada", 50],
      ["bo", 7],
    ];
    expect(await lines("name,points\nAda,50\nbo,7\n")).toEqual(both);
    expect(await lines("\uFEFFPOINTS;Name;x\n50;Ada;-\n7;bo;-\n")).toEqual(both);
    expect(await lines("Ada,50\r\n\r\n@bo,7\r\n")).toEqual(both);
    expect(await lines('viewer,balance,id\nAda,"1,050",ada.77\n')).toEqual([["ada.77", 1_050]]);
  });
  test("every line that can't be used says why, and the others go through", async () => {
    const text = ["name,points", ",5", "bo,", "cy,1.5", "dee,-3", "eve,0", "a b,3", `${"x".repeat(61)},3`, "fay,9e99", "gil,4", "GIL,4"];
    expect(await lines(text.join("\n"))).toEqual([
      "no name",
      "“” is no whole number",
      "“1.5” is no whole number",
      "less than 1 can’t be imported",
      "less than 1 can’t be imported",
      "a chat name has no spaces",
      "the name is too long",
      "“9e99” is no whole number",
      ["gil", 4],
      "the same viewer as in line 10",
    ]);
  });
  test("an id that comes in another case, or composed otherwise, is the same viewer", async () => {
    expect(await lines("name,points,id\nAda,5,ADA\nada,6,ada\nÁda,1,A\u0301DA\nádá,2,áda\n")).toEqual([
      ["ada", 5],
      "the same viewer as in line 2",
      ["áda", 1],
      "the same viewer as in line 4",
    ]);
    expect(await lines("__proto__,5\nconstructor,6\n")).toEqual([
      ["__proto__", 5],
      ["constructor", 6],
    ]);
  });
  test("whoever signs in by a name comes before those who call themselves so; of two who do, one is asked which", async () => {
    const known = async () => [
      { id: "alice_q", name: "Alice" },
      { id: "mallory_q", name: "alice_q" },
      { id: "bo", name: "Bee" },
      { id: "ben", name: "BEE" },
    ];
    const there = { ...web, store: { ...web.store, points: { ...web.store.points, known } } } as unknown as WebServices;
    const read = await readList(there, channel, "alice_q,5\nAlice,1\nbee,3\nbo,4\n");
    expect(read.ok && read.value.lines.map((l) => [l.id, l.problem])).toEqual([
      ["alice_q", ""],
      ["alice_q", "the same viewer as in line 1"],
      ["bee", "2 viewers have this name; give an id (bo, ben)"],
      ["bo", ""],
    ]);
  });
  test("what is no list is refused in words", async () => {
    for (const text of ["", "\n\n", "one column\nonly"]) expect(await readList(web, channel, text)).toMatchObject({ ok: false });
    const long = Array.from({ length: 20_001 }, (_, i) => `v${i},1`).join("\n");
    expect(await readList(web, channel, long)).toMatchObject({ ok: false, refusal: { facts: { why: expect.stringContaining("20,000") } } });
  });
});

describe("taken in", () => {
  const given = { text: Array.from({ length: 1_200 }, (_, i) => `v${i},2`).join("\n"), why: "from before", key: "k1" };
  const heard = (fails: number) => {
    const asked: { id: string; command: Command }[] = [];
    const deaf: WebServices = {
      ...web,
      engine: {
        ...web.engine,
        command: async (_c, _g, _by, id, command) => {
          asked.push({ id, command });
          return asked.length === fails ? refused("engine/away") : ok([]);
        },
      },
    };
    return { deaf, asked };
  };
  test("in pieces, each with a key of its own that is the same when it is sent again", async () => {
    const { deaf, asked } = heard(0);
    expect(await importPoints(deaf, channel, "weaver", given)).toMatchObject({ ok: true, value: { good: 1_200, points: 2_400 } });
    const again = heard(0);
    await importPoints(again.deaf, channel, "weaver", given);
    expect(asked.length).toBeGreaterThan(1);
    expect(new Set(asked.map((a) => a.id)).size).toBe(asked.length);
    expect(again.asked.map((a) => a.id)).toEqual(asked.map((a) => a.id));
    const viewers = asked.flatMap((a) => a.command["viewers"] as { id: string; by: number }[]);
    expect([viewers.length, new Set(viewers.map((v) => v.id)).size, viewers.every((v) => v.by === 2)]).toEqual([1_200, 1_200, true]);
  });
  test("stops where the engine does not answer, and says so", async () => {
    const { deaf, asked } = heard(2);
    expect(await importPoints(deaf, channel, "weaver", given)).toMatchObject({ ok: false, refusal: { code: "engine/away" } });
    expect(asked).toHaveLength(2);
  });
});
