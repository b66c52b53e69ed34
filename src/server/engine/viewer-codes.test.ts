import { describe, expect, test } from "@jest/globals";
import { channelId } from "../../core/kernel/ids";
import { ViewerCodes } from "./viewer-codes";

const kiln = channelId("kiln");
const minutes = 60_000;

function setUp(most = 5, random?: () => string) {
  const time = { nowMs: 1_000 };
  return { time, codes: new ViewerCodes(() => time.nowMs, most, random) };
}

describe("codes of viewer pages", () => {
  test("one for each page, the same as long as it is valid; valid once, for ten minutes, in its own channel", () => {
    const { codes, time } = setUp();
    const first = codes.of(kiln, "page1")!;
    expect(first.code).toMatch(/^me-[a-z2-9]{5}$/);
    expect(codes.of(kiln, "page1")).toEqual(first);
    expect(codes.take(channelId("other"), first.code)).toBeNull();
    expect(codes.take(kiln, ` ${first.code.toUpperCase()} `)?.tokenHash).toBe("page1");
    expect(codes.take(kiln, first.code)).toBeNull();
    const second = codes.of(kiln, "page1")!;
    time.nowMs += 10 * minutes;
    expect(codes.take(kiln, second.code)).toBeNull();
    expect(codes.of(kiln, "page1")!.code).not.toBe(second.code);
  });
  test("nobody’s code goes because others ask: while there are too many, new ones wait until old ones end", () => {
    const { codes, time } = setUp(5);
    const mine = codes.of(kiln, "mine")!;
    time.nowMs += 5 * minutes;
    const others = Array.from({ length: 20 }, (_, i) => codes.of(kiln, `other${i}`));
    expect(others.filter((c) => c !== null)).toHaveLength(4);
    expect(codes.of(kiln, "mine")).toEqual(mine);
    expect(codes.take(kiln, mine.code)?.tokenHash).toBe("mine");
    expect(codes.of(kiln, "other19")).not.toBeNull();
    expect(codes.of(kiln, "late")).toBeNull();
    time.nowMs += 10 * minutes;
    expect(codes.of(kiln, "late")).not.toBeNull();
  });
  test("a code that could not be written down is good again; two are never alike", () => {
    const drawn = ["me-aaaaa", "me-aaaaa", "me-bbbbb"];
    const { codes } = setUp(5, () => drawn.shift() ?? "me-ccccc");
    expect([codes.of(kiln, "p1")!.code, codes.of(kiln, "p2")!.code]).toEqual(["me-aaaaa", "me-bbbbb"]);
    const taken = codes.take(kiln, "me-aaaaa")!;
    taken.putBack();
    expect(codes.take(kiln, "me-aaaaa")?.tokenHash).toBe("p1");
    for (const text of ["constructor", "__proto__", "", "me-"]) expect(codes.take(kiln, text)).toBeNull();
  });
});
