import { type FormEvent, useState } from "react";
import type { OwnInGame } from "../../../core/wire/to-viewer";
import { send } from "./send";

/** Whether one's picture is shown on the channel's overlays, or initials stand there. */
export function FaceSwitch({
  channel,
  mine,
  script,
  nowMs,
  onSaid,
}: Readonly<{
  channel: string;
  mine: readonly OwnInGame[];
  script: boolean;
  nowMs: number;
  onSaid: (words: string, good: boolean) => void;
}>) {
  const [busy, setBusy] = useState(false);
  const own = mine.find((m) => typeof m.mine["face"] === "boolean");
  if (own === undefined) return null;
  const submit = async (event: FormEvent<HTMLFormElement>): Promise<void> => {
    if (!script) return;
    event.preventDefault();
    if (busy) return;
    setBusy(true);
    await send(channel, "act", `${own.id}.my-face`, Object.fromEntries(new FormData(event.currentTarget)), onSaid);
    setBusy(false);
  };
  return (
    <form method="post" action={`/api/viewer/${channel}/act`} onSubmit={(e) => void submit(e)} aria-busy={busy}>
      {/* One request for each time this page was made: pressed twice it is the same, on the page that comes back another. */}
      <input type="hidden" name="id" value={`f-${nowMs.toString(36)}-my-face-${own.id}`.slice(0, 40)} />
      <input type="hidden" name="game" value={own.id} />
      <input type="hidden" name="do" value="my-face" />
      <input type="hidden" name="be" value={own.mine["face"] === true ? "hidden" : "shown"} />
      <button type="submit" className="quiet">
        {own.mine["face"] === true ? "Hide my picture on stream" : "Show my picture on stream"}
      </button>
    </form>
  );
}
