import { letterOf } from "../../core/games/prediction/letters";
import { count, counted } from "../../core/words/sentence";
import type { ForViewersProps, GameForViewers } from "../for-viewers";

type Outcome = Readonly<{ label: string; stakes: number; people: number; share: number; odds: string }>;

/** A prediction on the viewer page: back an outcome, see what backs the others, hear what came. */
function Panel({ view, mine, points, balance, nowMs, form }: ForViewersProps) {
  const phase = String(view["phase"]);
  const stakes = view["stakes"] === true;
  // Views are written by the prediction's own rules.
  const outcomes = view["outcomes"] as readonly Outcome[];
  const result = typeof view["result"] === "number" ? view["result"] : null;
  const own = typeof mine?.["outcome"] === "number" ? mine["outcome"] : null;
  const stake = Number(mine?.["stake"] ?? 0);
  const streak = Number(mine?.["streak"] ?? 0);
  const leftS = Math.max(0, Math.ceil((Number(view["locksMs"]) - nowMs) / 1000));
  const open = phase === "open" && leftS > 0;
  const paid = view["paid"] as Readonly<{ winners: number; pot: number; returned: boolean }> | null;
  return (
    <div className="play">
      <p className="name">{String(view["title"])}</p>
      <p className="facts">
        {open
          ? `locks in ${Math.floor(leftS / 60)}:${String(leftS % 60).padStart(2, "0")}`
          : phase === "open" || phase === "locked"
            ? "locked"
            : ""}
        {phase === "done" || phase === "paying" ? "over" : phase === "cancelled" || phase === "returning" ? "cancelled" : ""}
        {` · ${counted(Number(view["people"]), "viewer")}`}
        {stakes ? ` · ${count(Number(view["pot"]))} ${points}` : ""}
      </p>
      <ul className="outcomes" aria-label="Outcomes">
        {outcomes.map((o, i) => (
          <li key={i} className={result === i ? "came" : result !== null ? "not" : undefined}>
            <b>{letterOf(i)}</b>
            <span>
              <bdi>{o.label}</bdi>
              {own === i ? (stakes ? ` (your ${count(stake)})` : " (yours)") : ""}
            </span>
            <span className="facts">
              {o.share} %{stakes && o.odds !== "–" && o.odds !== "" ? ` · ${o.odds} ×` : ""}
            </span>
          </li>
        ))}
      </ul>
      {result !== null && own !== null && (
        <p className="why">
          {paid?.returned === true && stakes
            ? "Nobody was right: you have your own back."
            : own === result
              ? "You were right."
              : "You were wrong this time."}
        </p>
      )}
      {!stakes && streak > 1 && <p>You were right {count(streak)} times in a row.</p>}
      {open && balance === null && (
        <p className="soft">Write {String(view["word"])} and a letter in chat, or tell this page your chat name above.</p>
      )}
      {open &&
        balance !== null &&
        (stakes || own === null) &&
        form(
          "back",
          <>
            {own === null ? (
              <label>
                Which
                <select name="outcome" required defaultValue="">
                  <option value="" disabled>
                    choose
                  </option>
                  {outcomes.map((o, i) => (
                    <option key={i} value={letterOf(i)}>
                      {letterOf(i)} {o.label}
                    </option>
                  ))}
                </select>
              </label>
            ) : (
              <input type="hidden" name="outcome" value={letterOf(own)} />
            )}
            {stakes && (
              <label>
                {own === null ? "How much" : "How much more"}
                <input name="amount" required maxLength={15} defaultValue="" placeholder="100, half, all" autoComplete="off" />
              </label>
            )}
            <button type="submit" className="main">
              {stakes ? (own === null ? "Stake it" : "Add it") : "Vote"}
            </button>
          </>,
        )}
    </div>
  );
}

export const predictionForViewers: GameForViewers = {
  open: (view) => view["on"] === true && !["", "cancelled"].includes(String(view["phase"])),
  Panel,
};
