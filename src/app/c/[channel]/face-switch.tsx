import type { FormEvent } from "react";
import type { OwnInGame } from "../../../core/wire/to-viewer";
import { purchaseRequestOf } from "./purchase-request";
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
  const own = mine.find((m) => typeof m.mine["face"] === "boolean");
  if (own === undefined) return null;
  const shown = own.mine["face"] === true;
  const submit = async (event: FormEvent<HTMLFormElement>): Promise<void> => {
    if (!script) return;
    event.preventDefault();
    // The page hears that it is hidden before the answer to that has come: whoever wants it back by then is heard too, and
    // each way is a request of its own.
    purchaseRequestOf(channel, `${own.id}.my-face.${shown ? "shown" : "hidden"}`).answered();
    await send(
      channel,
      "act",
      `${own.id}.my-face.${shown ? "hidden" : "shown"}`,
      Object.fromEntries(new FormData(event.currentTarget)),
      onSaid,
    );
  };
  return (
    <form method="post" action={`/api/viewer/${channel}/act`} onSubmit={(e) => void submit(e)}>
      {/* One request for each time this page was made: pressed twice it is the same, on the page that comes back another. */}
      <input type="hidden" name="id" value={`f-${nowMs.toString(36)}-my-face-${own.id}`.slice(0, 40)} />
      <input type="hidden" name="game" value={own.id} />
      <input type="hidden" name="do" value="my-face" />
      <input type="hidden" name="be" value={shown ? "hidden" : "shown"} />
      <button type="submit" className="quiet">
        {shown ? "Hide my picture on stream" : "Show my picture on stream"}
      </button>
    </form>
  );
}
