import type { Fair } from "../../../core/module/game";

/** What is promised of the next round, and where the last ones are checked. */
export function Fairness({ fair: { commitment, past } }: Readonly<{ fair: Fair }>) {
  return (
    <div className="fair">
      {commitment !== "" && (
        <p>
          The next one is promised by <code>{commitment}</code>
        </p>
      )}
      {past.length > 0 && (
        <ul>
          {past.map((p) => (
            <li key={p.round}>
              <bdi>{p.words}</bdi> <a href={`/rounds/${encodeURIComponent(p.round)}`}>Check it</a>
            </li>
          ))}
        </ul>
      )}
    </div>
  );
}
