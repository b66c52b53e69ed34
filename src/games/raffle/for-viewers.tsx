import { count, counted, ordinal } from "../../core/words/sentence";
import type { ForViewersProps, GameForViewers } from "../for-viewers";

type Winner = Readonly<{ name: string; prize: string; state: string }>;
const stateWords: Readonly<Record<string, string>> = {
  waits: "is to answer in chat",
  claimed: "claimed it",
  passed: "did not answer",
  drawn: "was drawn",
};

/** A draw on the viewer page: enter, see who is in, what one holds, who won. */
function Panel({ view, mine, points, balance, nowMs, form }: ForViewersProps) {
  const phase = String(view["phase"]);
  const by = String(view["by"]);
  const price = Number(view["price"]);
  const most = Number(view["most"]);
  const { from = 0, to = 0 } = (view["number"] ?? {}) as { from?: number; to?: number };
  // Views are written by the draw's own rules.
  const winners = (view["winners"] ?? []) as readonly Winner[];
  const holds = Number(mine?.["tickets"] ?? 0);
  const guess = typeof mine?.["guess"] === "number" ? mine["guess"] : null;
  const locksMs = Number(view["locksMs"] ?? 0);
  const leftS = Math.max(0, Math.ceil((locksMs - nowMs) / 1000));
  const full = by === "tickets" && holds >= most;
  return (
    <div className="play">
      <p className="name">{String(view["title"])}</p>
      {view["subtitle"] !== "" && <p className="about">{String(view["subtitle"])}</p>}
      <p className="facts">
        {counted(Number(view["people"]), "viewer")}
        {by === "tickets" ? ` · ${counted(Number(view["tickets"]), "ticket")}` : ""}
        {phase === "open" && locksMs > 0 ? ` · locks in ${Math.floor(leftS / 60)}:${String(leftS % 60).padStart(2, "0")}` : ""}
      </p>
      <p>
        {phase === "open"
          ? by === "number"
            ? guess === null
              ? `Name a number from ${count(from)} to ${count(to)}.`
              : `You named ${count(guess)}.`
            : holds === 0
              ? "You are not in yet."
              : full
                ? most === 1
                  ? "You are in."
                  : `You hold all ${count(most)} tickets.`
                : `You hold ${count(holds)} of ${counted(most, "ticket")}.`
          : phase === "shaking"
            ? `It is locked. Write anything in chat to shake the drum: ${count(Number(view["shaken"]))} of ${count(Number(view["shakers"]))} did.`
            : phase === "cancelled"
              ? "It was cancelled; what was paid goes back."
              : typeof view["target"] === "number"
                ? `The number is ${count(view["target"])}.`
                : "It is locked."}
      </p>
      {Number(view["tries"]) > 1 && <p>This is the {ordinal(Number(view["tries"]))} try in a row. The draws before it were cancelled.</p>}
      {mine !== null && typeof mine["chance"] === "string" && mine["chance"] !== "" && <p>Your chance is {mine["chance"]}.</p>}
      {mine !== null && mine["won"] === "waits" && (
        <p className="why">You won{mine["prize"] === "" ? "" : ` ${String(mine["prize"])}`}. Write anything in chat now to claim it.</p>
      )}
      {winners.length > 0 && (
        <ul aria-label="Winners">
          {winners.map((w, i) => (
            <li key={i}>
              <b>
                <bdi>{w.name}</bdi>
              </b>{" "}
              {stateWords[w.state] ?? ""}
              {w.prize === "" ? "" : `: ${w.prize}`}
            </li>
          ))}
        </ul>
      )}
      {phase === "open" &&
        balance !== null &&
        !full &&
        form(
          "join",
          <>
            <label>
              {by === "number" ? "Your number" : most === 1 ? "" : "How many tickets"}
              {by === "number" || most > 1 ? (
                <input
                  name="guess"
                  inputMode="numeric"
                  required
                  defaultValue={by === "number" ? "" : "1"}
                  maxLength={11}
                  autoComplete="off"
                />
              ) : (
                <input type="hidden" name="guess" value="1" />
              )}
            </label>
            <button type="submit" className="main">
              {by === "number" ? "Name it" : "Enter"}
              {price > 0 ? `, ${count(price)} ${points}${by === "tickets" && most > 1 ? " each" : ""}` : ""}
            </button>
          </>,
        )}
      {phase === "open" && balance === null && (
        <p className="soft">Write {String(view["word"])} in chat, or tell this page your chat name above.</p>
      )}
    </div>
  );
}

export const raffleForViewers: GameForViewers = { open: (view) => view["on"] === true && view["phase"] !== "", Panel };
