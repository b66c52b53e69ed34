import { describe, expect, test } from "@jest/globals";
import { asChapters, asEdl, asJson, asRows, markersSchema, mostEvents, onRecording } from "./markers";
import { frameRateOf } from "./timecode";

const showMs = Date.UTC(2026, 10, 27, 19);
const moment = (atS: number, toS: number, name: string, why = "") => ({
  atMs: showMs + atS * 1_000,
  toMs: showMs + toS * 1_000,
  name,
  why,
});
const at = (moments: readonly ReturnType<typeof moment>[], offsetMs = 0) => onRecording(moments, { fromMs: showMs, offsetMs }).markers;

describe("on the clock of the recording", () => {
  test("a recording that began three seconds before the show has all of it three seconds later", () => {
    expect(at([moment(10, 20, "a")], 3_000)).toEqual([{ fromMs: 13_000, toMs: 23_000, name: "a", why: "" }]);
  });
  test("what was before it is left out and counted; what reaches into it is cut; all are in order", () => {
    const { markers, before } = onRecording([moment(100, 110, "late"), moment(5, 15, "half"), moment(1, 4, "before")], {
      fromMs: showMs,
      offsetMs: -10_000,
    });
    expect(markers.map((m) => [m.name, m.fromMs, m.toMs])).toEqual([
      ["half", 0, 5_000],
      ["late", 90_000, 100_000],
    ]);
    expect(before).toBe(1);
  });
});

describe("chapters", () => {
  test("each lasts until the next, the last until the end, and the first begins with the recording", () => {
    expect(asChapters(at([moment(62.5, 70, "The kiln opens"), moment(3_725, 3_730, "Raid")]), 7_200_000, "Friday")).toBe(
      "WEBVTT\n\n1\n00:00:00.000 --> 00:01:02.500\nFriday\n\n2\n00:01:02.500 --> 01:02:05.000\nThe kiln opens\n\n3\n01:02:05.000 --> 02:00:00.000\nRaid\n",
    );
  });
  test("names can neither end a cue nor begin a tag; two at one moment are one", () => {
    const text = asChapters(at([moment(0, 1, "a --> b\n\n<c> & d"), moment(0, 2, "the same")]), 5_000, "x");
    expect(text).toBe("WEBVTT\n\n1\n00:00:00.000 --> 00:00:05.000\na --&gt; b &lt;c&gt; &amp; d\n");
  });
  test("none at all is one chapter", () => expect(asChapters([], 1_000, "Friday")).toContain("00:00:00.000 --> 00:00:01.000\nFriday"));
});

describe("a decision list", () => {
  test("drop-frame has its own sign and says so", () => {
    const edl = asEdl(at([moment(60.1, 62, "Old Spall’s fall", "chat 6 × its usual")]), frameRateOf("29.97"), "Vendredi à l’atelier");
    expect(edl.split("\r\n")).toEqual([
      "TITLE: Vendredi a l'atelier",
      "FCM: DROP FRAME",
      "",
      "001  AX       V     C        00:01:00;03 00:01:02;00 00:01:00;03 00:01:02;00",
      "* FROM CLIP NAME: Old Spall's fall",
      "* COMMENT: chat 6 ? its usual",
      "",
    ]);
  });
  test("has no event without a length, and no more than its machines can count", () => {
    const many = at(Array.from({ length: 1_200 }, (_, i) => moment(i, i, `m${i}`)));
    const edl = asEdl(many, frameRateOf("25"), "x");
    expect(edl.match(/^\d{3} {2}AX/gm)).toHaveLength(mostEvents);
    expect(edl).toContain("001  AX       V     C        00:00:00:00 00:00:00:01");
    expect(edl).toContain("FCM: NON-DROP FRAME");
    expect(edl).not.toMatch(/[^\x20-\x7e\r\n]/);
  });
});

test("rows and JSON name the same frames", () => {
  const markers = at([moment(60.1, 62, "a\u2028b", "c")]);
  const [row] = asRows(markers, frameRateOf("59.94"));
  expect(row).toMatchObject({
    name: "a b",
    start: "00:01:00.100",
    start_timecode: "00:01:00;06",
    start_frame: 3_602,
    frame_rate: "59.940 drop-frame",
  });
  const json = asJson(markers, frameRateOf("59.94"), { name: "x", fromMs: showMs, toMs: showMs + 1, offsetMs: 0 });
  expect(markersSchema.parse(json).markers[0]).toMatchObject({ fromFrame: 3_602, timecode: "00:01:00;06" });
});
