import type { Metadata } from "next";
import { theHouse } from "../../../core/signals/names";
import { count, counted, ordinal } from "../../../core/words/sentence";
import { addressOf } from "../../../server/web/cookie";
import { services } from "../../../server/web/services";
import { proofIn, roundOf } from "../../../server/web/rounds";
import { Check } from "./check";

/** A draw that was cancelled and opened again says so, whatever came of it. */
function Tries({ body: { tries = 1 } }: Readonly<{ body: Readonly<{ tries?: number | undefined }> }>) {
  if (tries < 2) return null;
  const before = tries - 1;
  return (
    <p>
      This was the {ordinal(tries)} try in a row: {before === 1 ? "the draw before it was" : `the ${count(before)} draws before it were`}{" "}
      cancelled.
    </p>
  );
}

const cancelledBy = (role: string): string =>
  role === "owner" ? "The owner of the channel" : role === "moderator" ? "A moderator" : "An operator";

export const metadata: Metadata = { title: "A round, checked" };

/** One round of chance, for anybody to follow; the checking itself is done by who looks. */
export default async function RoundPage({ params }: { params: Promise<{ round: string }> }) {
  const name = decodeURIComponent((await params).round);
  const found = await roundOf(name, await addressOf()).catch((error: unknown) => {
    if (services().isAway(error)) return null;
    throw error;
  });
  if (found === null)
    return (
      <main className="round">
        <h1>Not reachable at the moment</h1>
        <p>Nothing is lost. Load this page again in a moment.</p>
      </main>
    );
  if (!found.ok)
    return (
      <main className="round">
        <h1>No such round</h1>
        <p>There is no round of this name, or it is not over yet. A round can be checked once its result is told.</p>
      </main>
    );
  const { channel, channelName, gameName, kind, atMs, viewer, body } = found.value;
  // Rounds of before were kept under the name that their operator signs in by.
  const who = viewer ?? (body.by === undefined ? undefined : theHouse);
  const at = new Date(atMs).toISOString().replace("T", " ").slice(0, 16);
  return (
    <main className="round">
      <p>
        <a href={`/c/${channel}`}>{channelName}</a>
      </p>
      <h1>{gameName}</h1>
      {kind === "abandoned" ? (
        <>
          <p className="verdict">This round was abandoned before anything was drawn, at {at} UTC.</p>
          <p>
            {body.why === "lost"
              ? "Its secret could not be read any more."
              : body.why === "cancelled"
                ? `${cancelledBy(body.gaveUp?.role ?? "")} cancelled it. All points that were paid went back.`
                : "What it was to be was changed after it had been promised, so another was promised in its place."}{" "}
            {body.gaveUp != null &&
              `${body.gaveUp.phase === "open" ? "It was still open" : "It was locked"}, with ${counted(body.gaveUp.people, "viewer")} and ${counted(body.gaveUp.tickets, "ticket")} in it.`}
          </p>
          <Tries body={body} />
          <dl>
            <div>
              <dt>It was promised by</dt>
              <dd className="hash">{body.commitment}</dd>
            </div>
          </dl>
        </>
      ) : (
        <>
          <p className="verdict">
            <bdi>{body.label || "A picture"}</bdi>
            {who !== undefined && (
              <>
                , for <bdi>{who}</bdi>
              </>
            )}
            , at {at} UTC
          </p>
          <Tries body={body} />
          <Check
            proof={found.value.entries.length > 0 ? undefined : proofIn(found.value)}
            file={`/api/rounds/${encodeURIComponent(name)}`}
          />
        </>
      )}
    </main>
  );
}
