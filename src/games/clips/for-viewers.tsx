import { count, counted, seconds } from "../../core/words/sentence";
import type { ForViewersProps, GameForViewers } from "../for-viewers";

type Own = Readonly<{ n: number; title: string; phase: string; place: number; ms: number }>;
const phases: Readonly<Record<string, string>> = {
  making: "is looked at",
  asks: "waits for a moderator’s yes",
  waits: "waits its turn",
};

/** Clips on the viewer page: send one by its address or as a file, what it costs, and what becomes of one's own. */
function Panel({ view, mine, points, balance, form, file }: ForViewersProps) {
  const perSecond = Number(view["perSecond"]);
  const least = Number(view["least"]);
  const mostS = Math.floor(Number(view["mostMs"]) / 1000);
  const usualS = Math.min(mostS, Math.max(1, Math.floor(Number(view["usualMs"]) / 1000)));
  // Views are written by the clips' own rules.
  const own = (mine?.["clips"] ?? []) as readonly Own[];
  return (
    <div className="play">
      <p className="name">Show a clip</p>
      {perSecond > 0 && (
        <p className="about">
          A few seconds of a film, {count(perSecond)} {points} a second, at least {count(least)} and at most {counted(mostS, "second")}.
          {view["approve"] === true ? " A moderator looks at it first." : ""} What is not shown is given back.
        </p>
      )}
      {mine?.["plays"] === true && <p className="why">Yours plays now.</p>}
      {Number(mine?.["credit"] ?? 0) > 0 && <p className="facts">Some of a tip of yours is left: it counts for your next clip.</p>}
      {own.map((c) => (
        <div key={c.n}>
          <p className="facts">
            {c.title === "" ? "Your clip" : <q>{c.title}</q>}, {seconds(c.ms)}: {phases[c.phase] ?? ""}
            {c.phase === "waits" ? `, as number ${c.place}` : ""}
          </p>
          {form(
            "withdraw",
            <>
              <input type="hidden" name="n" value={c.n} />
              <button type="submit">Take it back</button>
            </>,
          )}
        </div>
      ))}
      {perSecond > 0 &&
        balance !== null &&
        form(
          "mine",
          <>
            <label className="wide">
              Where the film is
              <input name="address" type="url" inputMode="url" maxLength={2_000} placeholder="https://…" autoComplete="off" />
            </label>
            {file("or a film from this phone")}
            <label>
              From
              <input name="from" inputMode="text" maxLength={9} placeholder="0:07" defaultValue="0:00" autoComplete="off" />
            </label>
            <label>
              Seconds
              <input name="seconds" inputMode="numeric" required maxLength={3} defaultValue={String(usualS)} autoComplete="off" />
            </label>
            <label className="wide">
              What it is
              <input name="title" maxLength={80} placeholder="a few words, if you like" autoComplete="off" />
            </label>
            <button type="submit" className="main">
              Send it
            </button>
          </>,
        )}
      {balance === null && (
        <p className="soft">Write {String(view["word"])} and an address in chat, or tell this page your chat name above.</p>
      )}
    </div>
  );
}
export const clipsForViewers: GameForViewers = {
  open: (view, mine) => view["on"] === true && (Number(view["perSecond"]) > 0 || mine !== null),
  Panel,
};
