import type { ForViewersProps, GameForViewers } from "../for-viewers";

/** One's own voice, on the viewer page: which it is, and going back to the usual one. */
function Panel({ mine, form }: ForViewersProps) {
  return (
    <div className="play">
      <p className="name">Your voice</p>
      <p>What you have said is spoken in the voice “{String(mine?.["voice"] ?? "")}”.</p>
      {form("usual-voice", <button type="submit">Speak in the usual voice</button>)}
    </div>
  );
}
export const voicesForViewers: GameForViewers = { open: (_, mine) => mine !== null, Panel };
