import { expect, test } from "@jest/globals";
import { Tones } from "./tones";

const setUp = (waitMs = 50) => {
  const asked: [page: string, id: string][] = [];
  return { tones: new Tones((page, id) => asked.push([page, id]), waitMs), asked };
};

test("a page answers how its tone came out", async () => {
  const { tones, asked } = setUp();
  const first = tones.play("p1");
  const second = tones.play("p2");
  tones.came("p2", asked[1]![1], "blocked");
  tones.came("p1", asked[0]![1], "heard");
  expect([await first, await second]).toEqual([
    { ok: true, value: "heard" },
    { ok: true, value: "blocked" },
  ]);
});

test("a page that hangs is told as one that does not answer; what comes later, twice or from another page, changes nothing", async () => {
  const { tones, asked } = setUp(30);
  const first = tones.play("p1");
  const id = asked[0]![1];
  tones.came("p2", id, "heard");
  tones.came("p1", "constructor", "heard");
  expect(await first).toMatchObject({ ok: false, refusal: { code: "page/silent" } });
  tones.came("p1", id, "heard");
  const second = tones.play("p1");
  tones.came("p1", id, "heard");
  tones.came("p1", asked[1]![1], "silent");
  expect(await second).toEqual({ ok: true, value: "silent" });
});
