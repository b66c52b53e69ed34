import { describe, expect, test } from "@jest/globals";
import { Deliveries, Halves } from "./deliveries";
import { ToldAway } from "./told-away";

const settled = (): Promise<void> => new Promise((resolve) => setImmediate(resolve));

function setUp() {
  const written: string[][] = [];
  const later: (() => void)[] = [];
  let away = false;
  const deliveries = new Deliveries(
    async (sales) => {
      if (away) throw new Error("away");
      written.push([...sales]);
    },
    (work) => later.push(work),
  );
  return { deliveries, written, later, setAway: (is: boolean) => (away = is) };
}

describe("what a page has shown", () => {
  test("is written down; what comes meanwhile goes with the next", async () => {
    const { deliveries, written, later } = setUp();
    deliveries.add(["s1"]);
    deliveries.add(["s2", "s3"]);
    await settled();
    expect(written).toEqual([["s1"]]);
    expect([...deliveries.pending]).toEqual(["s2", "s3"]);
    later.shift()?.();
    await settled();
    expect(written).toEqual([["s1"], ["s2", "s3"]]);
    expect([...deliveries.pending]).toEqual([]);
    expect(later).toEqual([]);
  });
  test("is kept while the database is away, and written when it is back", async () => {
    const { deliveries, written, later, setAway } = setUp();
    setAway(true);
    deliveries.add(["s1"]);
    await settled();
    expect([...deliveries.pending]).toEqual(["s1"]);
    later.shift()?.();
    await settled();
    expect(written).toEqual([]);
    setAway(false);
    later.shift()?.();
    await settled();
    expect(written).toEqual([["s1"]]);
  });
  test("is written in parts, and no longer after the end", async () => {
    const { deliveries, written, later } = setUp();
    deliveries.add(Array.from({ length: 450 }, (_, i) => `s${i}`));
    await settled();
    expect(written.map((w) => w.length)).toEqual([200]);
    deliveries.stop();
    later.shift()?.();
    deliveries.add(["more"]);
    await settled();
    expect(written).toHaveLength(1);
  });
  test("nothing is nothing", async () => {
    const { deliveries, written, later } = setUp();
    deliveries.add([]);
    await settled();
    expect([written, later]).toEqual([[], []]);
  });
});

describe("a sale with a picture and a sound", () => {
  const both = [
    { shows: true, sounds: false },
    { shows: false, sounds: true },
  ];
  test("is shown once both were, in whichever order, and from whichever pages; each sale by itself", () => {
    const halves = new Halves();
    expect(halves.whole(["s1", "__proto__"], "picture", both)).toEqual([]);
    expect(halves.whole(["s1"], "picture", both)).toEqual([]);
    expect(halves.whole(["s2"], "sound", both)).toEqual([]);
    expect(halves.whole(["s1", "s2"], "sound", both)).toEqual(["s1"]);
    expect(halves.whole(["s2", "__proto__"], "picture", both)).toEqual(["s2"]);
    expect(halves.whole(["__proto__"], "sound", both)).toEqual(["__proto__"]);
  });
  test("is shown by its picture where no overlay is for sound, by its sound where none is for pictures", () => {
    const halves = new Halves();
    expect(halves.whole(["s1"], "picture", [{ shows: true, sounds: false }])).toEqual(["s1"]);
    expect(halves.whole(["s2"], "sound", [{ shows: false, sounds: true }])).toEqual(["s2"]);
    expect(halves.whole(["s3"], "whole", both)).toEqual(["s3"]);
  });
  test("is not remembered for ever", () => {
    const halves = new Halves();
    halves.whole(
      Array.from({ length: 5_000 }, (_, i) => `s${i}`),
      "picture",
      both,
    );
    expect(halves.whole(["s0", "s4999"], "sound", both)).toEqual(["s4999"]);
  });
});

describe("who is told that nothing can be stored", () => {
  test("each once in half a minute, and no crowd of them", () => {
    const told = new ToldAway();
    expect([told.may("ada", 0), told.may("ada", 29_000), told.may("__proto__", 0), told.may("__proto__", 1)]).toEqual([
      true,
      false,
      true,
      false,
    ]);
    expect(told.may("ada", 30_001)).toBe(true);
    const many = Array.from({ length: 30 }, (_, i) => told.may(`viewer${i}`, 30_002));
    expect(many.filter((m) => m)).toHaveLength(7);
  });
  test("a clock that was set back silences nobody", () => {
    const told = new ToldAway();
    expect(told.may("ada", 1_000_000)).toBe(true);
    expect(told.may("ada", 5)).toBe(true);
  });
});
