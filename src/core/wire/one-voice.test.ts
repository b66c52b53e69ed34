import { describe, expect, test } from "@jest/globals";
import { channelId } from "../kernel/ids";
import { leaseMs, type VoicePage, OneVoice } from "./one-voice";

const channel = channelId("kiln");
const page = (id: string, part: Partial<VoicePage> = {}): VoicePage => ({
  id,
  channel,
  overlay: "main",
  sinceMs: Number(id.slice(1)),
  sounds: true,
  ready: true,
  hidden: false,
  ...part,
});

function setUp() {
  const time = { nowMs: 0 };
  const said: string[] = [];
  const one = new OneVoice(
    () => time.nowMs,
    (id, on) => said.push(`${id} ${on ? "on" : "off"}`),
  );
  return { time, said, one };
}

describe("one voice", () => {
  test("of five pages one speaks: the one that was there first", () => {
    const { one, said } = setUp();
    one.settle(channel, [page("p3"), page("p1"), page("p2"), page("p5"), page("p4")]);
    expect([one.holder(channel), said]).toEqual(["p1", ["p1 on"]]);
  });
  test("it keeps the voice as long as it says that it speaks", () => {
    const { one, time, said } = setUp();
    const pages = [page("p1"), page("p2")];
    one.settle(channel, pages);
    for (let i = 0; i < 20; i += 1) {
      time.nowMs += 600;
      one.heard(channel, "p1");
      one.settle(channel, pages);
    }
    expect(one.holder(channel)).toBe("p1");
    expect(said.filter((s) => s.endsWith("off"))).toEqual([]);
  });
  test("a page that hangs loses it within two seconds; one that leaves, at once", () => {
    const { one, time } = setUp();
    one.settle(channel, [page("p1"), page("p2")]);
    time.nowMs += leaseMs + 1;
    one.settle(channel, [page("p1"), page("p2")]);
    expect(one.holder(channel)).toBe("p2");
    one.settle(channel, [page("p1")]);
    expect(one.holder(channel)).toBe("p1");
    expect(leaseMs + 500).toBeLessThan(2_500);
  });
  test("a lone page that stalled and let go is told again, until it says that it speaks", () => {
    const { one, time, said } = setUp();
    one.settle(channel, [page("p1")]);
    time.nowMs += 3_000;
    one.settle(channel, [page("p1")]);
    time.nowMs += 500;
    one.settle(channel, [page("p1")]);
    expect(said).toEqual(["p1 on", "p1 on", "p1 on"]);
    one.heard(channel, "p1");
    time.nowMs += 500;
    one.settle(channel, [page("p1")]);
    // Its own answer was the last it was told.
    expect(said).toHaveLength(4);
    expect(one.holder(channel)).toBe("p1");
  });
  test("pages whose browser blocks sound, and overlays without sound, never have it", () => {
    const { one } = setUp();
    one.settle(channel, [page("p1", { ready: false }), page("p2", { sounds: false })]);
    expect(one.holder(channel)).toBeNull();
    one.settle(channel, [page("p1", { ready: false }), page("p3", { hidden: true }), page("p4")]);
    expect(one.holder(channel)).toBe("p4");
  });
  test("an operator can choose which, and a page that was not chosen and speaks is told to be silent", () => {
    const { one, said } = setUp();
    const pages = [page("p1"), page("p2")];
    one.settle(channel, pages);
    one.choose(channel, "p2");
    one.settle(channel, pages);
    expect(said).toEqual(["p1 on", "p1 off", "p2 on"]);
    one.heard(channel, "p1");
    expect(said[3]).toBe("p1 off");
    one.settle(channel, [page("p1")]);
    expect(one.holder(channel)).toBe("p1");
  });
  test("two channels each have their own", () => {
    const { one } = setUp();
    const other = channelId("other");
    const pages = [page("p1"), page("p2", { channel: other })];
    one.settle(channel, pages);
    one.settle(other, pages);
    expect([one.holder(channel), one.holder(other)]).toEqual(["p1", "p2"]);
  });
});
