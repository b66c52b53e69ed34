import type { Metadata } from "next";
import { addressOf } from "../../../server/web/cookie";
import { services } from "../../../server/web/services";
import { sharedBy } from "../../../server/web/share";
import { count } from "../../../core/words/sentence";

export const metadata: Metadata = { title: "A show", robots: { index: false, follow: false }, referrer: "no-referrer" };

const two = (n: number): string => String(n).padStart(2, "0");
const clock = (ms: number): string => {
  const s = Math.floor(ms / 1_000);
  return `${Math.floor(s / 3_600)}:${two(Math.floor((s % 3_600) / 60))}:${two(s % 60)}`;
};

/** A past show for whoever has its link: what may be seen of it, and nothing else. It works without script. */
export default async function SharedPage({ params }: { params: Promise<{ token: string }> }) {
  const found = await sharedBy(services(), (await params).token, await addressOf()).catch((error: unknown) => {
    if (services().isAway(error)) return null;
    throw error;
  });
  if (found === null || !found.ok)
    return (
      <main className="round">
        <h1>{found === null ? "Not reachable at the moment" : "Nothing to see here"}</h1>
        <p>
          {found === null
            ? "Nothing is lost. Load this page again in a moment."
            : "This link leads nowhere: the page was taken back, or the link is not whole."}
        </p>
      </main>
    );
  const { channel, name, fromMs, toMs, numbers, curve, moments, results } = found.value;
  const most = Math.max(1, ...curve.chat);
  const points = curve.chat.map((n, i) => `${i},${(100 - (n / most) * 100).toFixed(1)}`).join(" ");
  const facts: readonly (readonly [number, string])[] = [
    [numbers.messages, `messages from ${count(numbers.people)} viewers`],
    [numbers.busiest, "in the busiest minute"],
    [numbers.follows, numbers.follows === 1 ? "follow" : "follows"],
    [numbers.raiders, `came with ${numbers.raids === 1 ? "a raid" : `${numbers.raids} raids`}`],
  ];
  return (
    <main className="round">
      <p>{channel}</p>
      <h1>{name}</h1>
      <p className="verdict">
        {new Date(fromMs).toISOString().slice(0, 16).replace("T", " ")} UTC, {clock(toMs - fromMs)}
      </p>
      <dl>
        {facts
          .filter(([n]) => n > 0)
          .map(([n, words]) => (
            <div key={words}>
              <dt>{words}</dt>
              <dd>{count(n)}</dd>
            </div>
          ))}
      </dl>
      {curve.chat.length > 1 && (
        <svg
          viewBox={`0 0 ${curve.chat.length - 1} 100`}
          preserveAspectRatio="none"
          role="img"
          aria-label="How much was written, from the beginning of the show to its end"
          style={{ width: "100%", height: "90px", display: "block" }}
        >
          <polyline points={points} fill="none" stroke="currentColor" strokeWidth="1.5" vectorEffect="non-scaling-stroke" />
        </svg>
      )}
      {moments.length > 0 && (
        <>
          <h2>Moments</h2>
          <ul>
            {moments.map((m) => (
              <li key={`${m.afterMs} ${m.name}`}>
                {clock(m.afterMs)} <bdi>{m.name}</bdi>
              </li>
            ))}
          </ul>
        </>
      )}
      {results.length > 0 && (
        <>
          <h2>Results</h2>
          <ul>
            {results.map((r) => (
              <li key={`${r.afterMs} ${r.game} ${r.title}`}>
                {clock(r.afterMs)} <bdi>{r.title}</bdi> <bdi>{r.result}</bdi>{" "}
                {r.check !== "" && <a href={`/rounds/${encodeURIComponent(r.check)}`}>Proof</a>}
              </li>
            ))}
          </ul>
        </>
      )}
    </main>
  );
}
