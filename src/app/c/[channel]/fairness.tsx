"use client";
import { useEffect } from "react";
import type { Fair } from "../../../core/module/game";
import { noteSeen } from "../../../ui/seen-hashes";

/** What is promised of the next round, and where the last ones are checked. */
export function Fairness({ fair: { commitment, round, past, chain = "", list = "" } }: Readonly<{ fair: Fair }>) {
  useEffect(() => noteSeen(round, [commitment, chain, list]), [round, commitment, chain, list]);
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
