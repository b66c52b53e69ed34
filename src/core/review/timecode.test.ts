import { describe, expect, test } from "@jest/globals";
import { frameAt, frameOf, frameRateOf, frameRates, msOfFrame, timecode } from "./timecode";

const drop = frameRateOf("29.97");
const at = (ms: number, id: (typeof frameRates)[number]["id"]) => timecode(frameAt(ms, frameRateOf(id)), frameRateOf(id));

describe("drop-frame, as it is counted everywhere", () => {
  test.each([
    [0, "00:00:00;00"],
    [1_799, "00:00:59;29"],
    // The numbers 00 and 01 of a minute are left out.
    [1_800, "00:01:00;02"],
    [17_981, "00:09:59;29"],
    // But not of the tenth.
    [17_982, "00:10:00;00"],
    [17_982 + 1_799, "00:10:59;29"],
    [17_982 + 1_800, "00:11:00;02"],
    [107_892, "01:00:00;00"],
    [2_589_407, "23:59:59;29"],
    [2_589_408, "00:00:00;00"],
  ])("frame %d is %s", (frame, code) => expect(timecode(frame, drop)).toBe(code));
  test("at 59.94 four numbers are left out", () => {
    expect(timecode(3_600, frameRateOf("59.94"))).toBe("00:01:00;04");
    expect(timecode(215_784, frameRateOf("59.94"))).toBe("01:00:00;00");
  });
  test("an hour of the clock is an hour of the counter, but for a frame", () => {
    expect(at(3_599_990, "29.97")).toBe("00:59:59;29");
    expect(at(3_600_000, "29.97")).toBe("01:00:00;00");
    // Without drop-frame it is 3.6 s behind.
    expect(at(3_600_000, "29.97n")).toBe("00:59:56:12");
  });
});

test.each([
  [40, "25", "00:00:00:01"],
  [3_723_480, "25", "01:02:03:12"],
  [1_000, "24", "00:00:01:00"],
  [1_000, "23.976", "00:00:00:23"],
  [86_400_000, "30", "00:00:00:00"],
  [12 * 3_600_000 + 500, "50", "12:00:00:25"],
] as const)("%d ms at %s is %s", (ms, id, code) => expect(at(ms, id)).toBe(code));

test.each(frameRates.map((r) => [r.id, r] as const))(
  "at %s every number leads back to its frame, and every frame to its time",
  (_, rate) => {
    for (let frame = 0; frame < 120_000; frame += frame < 4_000 ? 1 : 97) {
      expect(frameOf(timecode(frame, rate), rate)).toBe(frame);
      expect(frameAt(msOfFrame(frame, rate), rate)).toBe(frame);
    }
  },
);

test("what is no number on the counter is none", () => {
  for (const code of ["00:01:00;00", "00:61:00;00", "00:00:00;30", "1:2:3:4", "", "constructor"]) expect(frameOf(code, drop)).toBeNull();
  expect(frameOf("00:01:00:00", frameRateOf("30"))).toBe(1_800);
});
