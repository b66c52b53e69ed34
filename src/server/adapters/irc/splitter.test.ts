import { describe, expect, test } from "@jest/globals";
import { LineSplitter } from "./splitter";

const split = (chunks: Buffer[], longest?: number): { lines: string[]; dropped: number } => {
  const lines: string[] = [];
  const splitter = new LineSplitter((line) => lines.push(line), longest);
  for (const chunk of chunks) splitter.push(chunk);
  return { lines, dropped: splitter.dropped };
};
const bytes = (text: string): Buffer => Buffer.from(text);

describe("bytes to lines", () => {
  test("however the network cuts them, the lines are the same", () => {
    const whole = bytes("one\r\ntwo 🔥 é\nthree\r\n\r\nfour\n");
    for (let size = 1; size <= whole.length; size += 1) {
      const chunks: Buffer[] = [];
      for (let at = 0; at < whole.length; at += size) chunks.push(whole.subarray(at, at + size));
      expect(split(chunks).lines).toEqual(["one", "two 🔥 é", "three", "four"]);
    }
  });
  test("broken UTF-8 becomes replacement characters, and the next line is whole", () => {
    expect(split([Buffer.concat([bytes("a"), Buffer.from([0xff, 0xc3, 0x28, 0xf0, 0x9f]), bytes("b\nnext\n")])]).lines).toEqual([
      expect.stringMatching(/^a\uFFFD+\(?\uFFFD*b$/u),
      "next",
    ]);
  });
  test("a line without end fills no memory and spoils no neighbour", () => {
    const { lines, dropped } = split(
      [bytes("good\n"), ...Array.from({ length: 200 }, () => bytes("x".repeat(1_000))), bytes("end\nafter\n")],
      8_192,
    );
    expect([lines, dropped]).toEqual([["good", "after"], 1]);
  });
  test("a whole line over the limit is dropped and counted", () =>
    expect(split([bytes(`${"y".repeat(60)}\nok\n`)], 50)).toEqual({ lines: ["ok"], dropped: 1 }));
});
