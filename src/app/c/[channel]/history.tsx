import { historyInWords } from "../../../core/points/history";
import { count } from "../../../core/words/sentence";
import type { HistoryLine } from "../../../server/ports/points-store";

/** How points came and went, newest first; rounds of being there in a row are one line. */
export function History({ lines, points, nowMs }: Readonly<{ lines: readonly HistoryLine[]; points: string; nowMs: number }>) {
  if (lines.length === 0) return <p className="soft">Nothing yet. Be there, and {points} come by themselves.</p>;
  const rows: { words: string; amount: number; atMs: number; times: number }[] = [];
  for (const { reason, about, amount, atMs } of lines) {
    const words = historyInWords(reason, about);
    const last = rows[rows.length - 1];
    if (reason === "presence" && last?.words === words) {
      last.amount += amount;
      last.times += 1;
    } else rows.push({ words, amount, atMs, times: 1 });
  }
  return (
    <ul className="history">
      {rows.map((r) => (
        <li key={`${r.atMs}.${r.words}`}>
          <span>
            {r.words}
            {r.times > 1 ? `, ${r.times} times` : ""}
          </span>
          <span className="soft">{ago(nowMs - r.atMs)}</span>
          <b className={r.amount < 0 ? "out" : "in"}>
            {r.amount < 0 ? "−" : "+"}
            {count(Math.abs(r.amount))}
          </b>
        </li>
      ))}
    </ul>
  );
}

function ago(ms: number): string {
  const min = Math.floor(ms / 60_000);
  if (min < 1) return "just now";
  if (min < 60) return `${min} min ago`;
  const hours = Math.floor(min / 60);
  return hours < 48 ? `${hours} h ago` : `${Math.floor(hours / 24)} days ago`;
}
