import { monitorEventLoopDelay } from "node:perf_hooks";
import { bareContext } from "../src/core/module/module";
import { chatReader, defaultDialect } from "../src/core/chat/dialect";
import { emoteIndex, findEmotes } from "../src/core/chat/emotes";
import { parseLine } from "../src/core/chat/line";
import { emoteWall } from "../src/core/games/emote-wall/definition";
import { crowd } from "../src/core/lab/crowd";
import { saidLine } from "../src/practice/platform";
import { people } from "../src/practice/viewers";
import { LineSplitter } from "../src/server/adapters/irc/splitter";
import { median, ms, quantile, type Bench, type Row, thousands } from "./row";

const channel = "#saltmarsh-kiln";
const words = Array.from({ length: 500 }, (_, i) => `emoteWord${i}`);

/** A storm as it comes over the network: tags, ids, half of it with emotes, cut into 16 KB pieces. */
function storm(lines: number): Buffer[] {
  const parts: string[] = [];
  const says = crowd(
    { seed: 5, perSecond: 1_000, emoteShare: 0.6, copyShare: 0.3, rushesPerMinute: 0, givesPerMinute: 0 },
    {
      viewers: people.map((p) => p.nick),
      emotes: [...words.slice(0, 60), "🔥", "👏"],
      lines: ["that rim!", "is the vase thrown in one piece?", "good pull", "what glaze is that"],
    },
  );
  for (let i = 0; i < lines; i += 1) {
    const { viewer, text } = says.next().value;
    parts.push(saidLine(people.find((p) => p.nick === viewer) ?? people[0]!, channel, text, [], `id-${i}`));
  }
  const all = Buffer.from(`${parts.join("\r\n")}\r\n`);
  const pieces: Buffer[] = [];
  for (let at = 0; at < all.length; at += 16_384) pieces.push(all.subarray(at, at + 16_384));
  return pieces;
}

const rate = (lines: number, work: () => void): number => {
  const from = performance.now();
  work();
  return lines / ((performance.now() - from) / 1000);
};

export async function measure({ say }: Bench): Promise<Row[]> {
  const lines = 200_000;
  const pieces = storm(lines);
  const index = emoteIndex(words.map((word, i) => ({ id: `e${i}`, word })));
  const read = chatReader(defaultDialect);
  const sources = { own: true, marked: true, emoji: true };
  const splitOnly = (): void => {
    let count = 0;
    let rest = "";
    for (const piece of pieces) {
      const parts = (rest + piece.toString("utf8")).split("\r\n");
      rest = parts.pop() ?? "";
      count += parts.length;
    }
    if (count !== lines) throw new Error("lost lines");
  };
  let found = 0;
  const trivial = (): void => {
    found = 0;
    const splitter = new LineSplitter((text) => {
      const line = parseLine(text);
      const said = line === null ? null : read(line);
      if (said !== null && findEmotes(said.text, said.marks, index, sources).length > 0) found += 1;
    });
    for (const piece of pieces) splitter.push(piece);
  };
  const wall = (): void => {
    let transient = emoteWall.freshDust();
    const durable = { on: true, worn: [] };
    let seq = 0;
    const splitter = new LineSplitter((text) => {
      const line = parseLine(text);
      const said = line === null ? null : read(line);
      if (said === null) return;
      seq += 1;
      transient = emoteWall.step(
        { settings: emoteWall.defaults, durable, transient },
        {
          kind: "message",
          seq,
          atMs: seq,
          id: said.id ?? "",
          viewer: { id: said.viewerId, name: said.name, roles: said.roles },
          text: said.text,
          marks: said.marks,
        },
        { ...bareContext(emoteIndex([])), emotes: index, salt: 1 },
      ).transient;
    });
    for (const piece of pieces) splitter.push(piece);
  };
  for (const work of [splitOnly, trivial, wall]) work();
  const runs = Array.from({ length: 5 }, () => ({ raw: rate(lines, splitOnly), ours: rate(lines, trivial), full: rate(lines, wall) }));
  const raw = median(runs.map((r) => r.raw));
  const ours = median(runs.map((r) => r.ours));
  const full = median(runs.map((r) => r.full));
  say(`  ${found} of ${lines} lines held emotes`);

  const idle = await loopDelay(3_000, () => undefined);
  const busy = await loopDelay(6_000, paced(pieces, lines, index));
  return [
    {
      what: "chat lines: split, parse, find emotes (500 words), trivial rule",
      ours: thousands(ours),
      baseline: thousands(raw),
      ratio: (ours / raw).toFixed(2),
      budget: "≥ 0.40 of split only",
      met: ours / raw >= 0.4,
    },
    {
      what: "chat lines: the same through the whole emote wall",
      ours: thousands(full),
      baseline: thousands(raw),
      ratio: (full / raw).toFixed(2),
      budget: "told",
      met: null,
    },
    {
      what: "event loop, p99, at 10,000 chat lines a second",
      ours: ms(busy),
      baseline: ms(idle),
      ratio: `+${(busy - idle).toFixed(1)} ms`,
      budget: "≤ idle + 1.5 ms",
      met: busy - idle <= 1.5,
    },
  ];
}

/** Feeds 10,000 lines a second through split, parse and find, in pieces as a socket would give them. */
function paced(pieces: readonly Buffer[], lines: number, index: ReturnType<typeof emoteIndex>): () => void {
  const read = chatReader(defaultDialect);
  const splitter = new LineSplitter((text) => {
    const line = parseLine(text);
    const said = line === null ? null : read(line);
    if (said !== null) findEmotes(said.text, said.marks, index, { own: true, marked: true, emoji: true });
  });
  const perPiece = lines / pieces.length;
  const from = performance.now();
  let sent = 0;
  return () => {
    const due = ((performance.now() - from) / 1000) * (10_000 / perPiece);
    for (; sent < due; sent += 1) splitter.push(pieces[sent % pieces.length]!);
  };
}

async function loopDelay(forMs: number, each: () => void): Promise<number> {
  const delay = monitorEventLoopDelay({ resolution: 1 });
  const samples: number[] = [];
  const timer = setInterval(each, 2);
  delay.enable();
  for (let i = 0; i < 3; i += 1) {
    await new Promise((resolve) => setTimeout(resolve, forMs / 3));
    samples.push(delay.percentile(99) / 1e6);
    delay.reset();
  }
  delay.disable();
  clearInterval(timer);
  return quantile(samples, 0.5);
}
