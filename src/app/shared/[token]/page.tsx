import type { Metadata } from "next";
import { addressOf } from "../../../server/web/cookie";
import { services } from "../../../server/web/services";
import { sharedBy } from "../../../server/web/share";
import { clockOf } from "../../../core/words/clock";
import { count } from "../../../core/words/sentence";

export const metadata: Metadata = { title: "A show", robots: { index: false, follow: false }, referrer: "no-referrer" };

const day = (ms: number): string => new Date(ms).toLocaleDateString("en-GB", { dateStyle: "full", timeZone: "UTC" });
const isoClock = (ms: number): string => `PT${Math.floor(ms / 1_000)}S`;

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
  const wide = Math.max(1, curve.chat.length - 1);
  const points = curve.chat.map((n, i) => `${i},${(100 - (n / most) * 92).toFixed(1)}`).join(" ");
  const facts: readonly (readonly [number, string])[] = [
    [numbers.messages, `messages from ${count(numbers.people)} viewers`],
    [numbers.busiest, "in the busiest minute"],
    [numbers.follows, numbers.follows === 1 ? "follow" : "follows"],
    [numbers.raiders, `came with ${numbers.raids === 1 ? "a raid" : `${numbers.raids} raids`}`],
  ];
  return (
    <main className="round told">
      <p>{channel}</p>
      <h1>{name}</h1>
      <p>
        {day(fromMs)}, from {new Date(fromMs).toISOString().slice(11, 16)} UTC, {clockOf(toMs - fromMs)} long
      </p>
      <dl className="numbers">
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
        <figure>
          <svg
            viewBox={`0 0 ${wide} 100`}
            preserveAspectRatio="none"
            role="img"
            aria-label="How much was written, from the beginning to the end"
          >
            {moments.map((m) => (
              <rect
                key={`${m.afterMs} ${m.name}`}
                x={m.afterMs / curve.binMs}
                width={Math.max(wide / 400, m.ms / curve.binMs)}
                y="0"
                height="100"
              />
            ))}
            <polygon points={`0,100 ${points} ${wide},100`} />
          </svg>
          <figcaption>
            <span>How much was written{moments.length > 0 ? "; the moments stand in ochre" : ""}</span>
            <span>{clockOf(toMs - fromMs)}</span>
          </figcaption>
        </figure>
      )}
      {moments.length > 0 && (
        <>
          <h2>Moments</h2>
          <ul className="clocked">
            {moments.map((m) => (
              <li key={`${m.afterMs} ${m.name}`}>
                <time dateTime={isoClock(m.afterMs)}>{clockOf(m.afterMs)}</time>
                <bdi>{m.name}</bdi>
              </li>
            ))}
          </ul>
        </>
      )}
      {results.length > 0 && (
        <>
          <h2>Results</h2>
          <ul className="clocked">
            {results.map((r, i) => (
              <li key={i}>
                <time dateTime={isoClock(r.afterMs)}>{clockOf(r.afterMs)}</time>
                <span>
                  <b>
                    <bdi>{r.title}</bdi>
                  </b>{" "}
                  <bdi>{r.result}</bdi>
                </span>
                {r.check !== "" && <a href={`/rounds/${encodeURIComponent(r.check)}`}>Proof</a>}
              </li>
            ))}
          </ul>
        </>
      )}
    </main>
  );
}
