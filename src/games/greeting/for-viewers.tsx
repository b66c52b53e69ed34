import type { ForViewersProps, GameForViewers } from "../for-viewers";

/** One's own entrance, on the viewer page: what it is, and letting it go. */
function Panel({ mine, form }: ForViewersProps) {
  const line = String(mine?.["line"] ?? "");
  const more = [mine?.["picture"] === true ? "a picture" : "", mine?.["sound"] === true ? "a sound" : ""].filter((t) => t !== "");
  return (
    <div className="play">
      <p className="name">Your entrance</p>
      <p>
        When you write first in a show, you come in with {line === "" ? "" : <q>{line}</q>}
        {line !== "" && more.length > 0 ? ", " : ""}
        {more.join(" and ")}.
      </p>
      {form("drop-mine", <button type="submit">Do without it</button>)}
    </div>
  );
}
export const greetingForViewers: GameForViewers = { open: (_, mine) => mine !== null, Panel };
