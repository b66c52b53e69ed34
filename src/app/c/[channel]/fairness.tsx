import type { Fair } from "../../../core/module/game";

/** What is promised of the next round, and where the last ones are checked. */
export function Fairness({ fair: { commitment, past, chain = "", list = "" } }: Readonly<{ fair: Fair }>) {
  return (
    <div className="fair">
      {commitment !== "" && (
        <p>
          {chain === "" ? "The next one" : "This one"} is promised by <code>{commitment}</code>
        </p>
      )}
      {chain !== "" && (
        <p>
          The chain of its entries stands at <code>{chain}</code>
        </p>
      )}
      {list !== "" && (
        <p>
          The list that is drawn from is <code>{list}</code>
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
