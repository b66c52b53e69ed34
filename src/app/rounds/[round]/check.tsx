"use client";
import { useEffect, useState } from "react";
import { checkProof, leastSeen } from "../../../core/chance/check";
import type { Proof } from "../../../core/chance/proof";
import type { CheckStep } from "../../../core/chance/proof-parts";
import { count } from "../../../core/words/sentence";
import { seenOf } from "../../../ui/seen-hashes";

const titles: Readonly<Record<CheckStep["name"], string>> = {
  promise: "The promise",
  settings: "What was announced",
  chain: "The entries",
  lock: "The lock",
  list: "The list",
  shake: "The shaken drum",
  draws: "The result",
  seen: "What was public",
  missing: "What it can’t show",
};
const mostListed = 500;

/** Computes a round again in the browser of who looks: nothing is asked of the server for it. */
export function Check({ proof: given, file }: Readonly<{ proof: unknown; file: string }>) {
  // A large one does not come with the page: it is fetched as the file it is.
  const [proof, setProof] = useState<unknown>(given);
  const [away, setAway] = useState(false);
  const [checked, setChecked] = useState<ReturnType<typeof checkProof> | null>(null);
  const [pasted, setPasted] = useState("");
  useEffect(() => {
    if (given !== undefined) return;
    void fetch(file)
      .then((answer) => (answer.ok ? answer.json() : Promise.reject(new Error("away"))))
      .then(setProof, () => setAway(true));
  }, [given, file]);
  useEffect(() => {
    if (proof === undefined) return;
    const own = hashIn(pasted);
    const name = (proof as { round?: unknown } | null)?.round;
    setChecked(checkProof(proof, [...seenOf(typeof name === "string" ? name : ""), ...(own === "" ? [] : [own])]));
  }, [proof, pasted]);
  if (proof === undefined)
    return (
      <p aria-live="polite">
        {away ? (
          "It could not be fetched. Load this page again in a moment."
        ) : (
          <>
            This was a large round: <a href={file}>its proof</a> is being fetched.
          </>
        )}
      </p>
    );
  // What the server hands over has been read by its schema; what is shown of it is checked above.
  const round = proof as Proof | null;
  if (round === null) return <p>The secret of this round could not be read when it ended, so there is nothing to check.</p>;
  const names = namesIn(round.settings);
  return (
    <>
      <div aria-live="polite">
        {checked === null ? (
          <p>Your browser checks it with script. Without, take the file and check it by a program of your own.</p>
        ) : (
          <p className={`verdict ${checked.holds ? "holds" : "fails"}`}>
            {checked.holds ? "It holds: your browser came to the same result." : "It does not hold. See which step fails."}
          </p>
        )}
      </div>
      <ol className="steps" aria-label="Steps">
        {(checked?.steps ?? []).map((step) => (
          <li key={step.name}>
            <span className={step.holds ? "holds" : "fails"} aria-label={step.holds ? "holds" : "does not hold"} role="img">
              {step.holds ? "✓" : "✗"}
            </span>
            <span>
              <b>{titles[step.name]}.</b> {step.says}
            </span>
          </li>
        ))}
      </ol>
      <p className="seen">
        <label>
          A hash you saw while it ran{" "}
          <input
            value={pasted}
            onChange={(e) => setPasted(e.target.value)}
            placeholder="at least 12 characters of it"
            size={30}
            spellCheck={false}
            autoComplete="off"
          />
        </label>{" "}
        <span className="soft">
          {pasted.trim() !== "" && hashIn(pasted) === ""
            ? `Paste at least ${leastSeen} characters, 0 to 9 and a to f.`
            : "Chat and the viewer page show the promise and the newest link of the chain. They must be in the proof."}
        </span>
      </p>
      <h2>What was drawn from</h2>
      <ul className="list" tabIndex={round.list.length > 10 ? 0 : undefined}>
        {round.list.slice(0, mostListed).map((t) => (
          <li key={t.id}>
            <bdi>{names.get(t.id) ?? t.id}</bdi>: {"guess" in t ? count(t.guess) : count(t.weight)}
            {round.draws.some((d) => d.id === t.id) && <b> · drawn</b>}
          </li>
        ))}
        {round.list.length > mostListed && <li>and {count(round.list.length - mostListed)} more, in the file</li>}
      </ul>
      <h2>Its numbers</h2>
      <dl>
        <Line name="Promised by, before the first entry" value={round.commitment} />
        <Line name="The secret, told with the result" value={round.secret} />
        <Line name="Hash of what was announced" value={round.settingsHash} />
        <Line name="Last link of the chain of entries" value={round.chain} />
        <Line name="Hash of the list" value={round.listHash} />
        <Line name="Round" value={round.round} />
      </dl>
      <p>
        <a href={file}>The whole proof as a file</a>, by <a href={`/schemas/${round.format}.json`}>this schema</a>. A short script comes
        with Izzam and checks it too.
      </p>
      <h2>What this proves, and what not</h2>
      <p>
        The result follows from what was public before anybody could know it: the promised secret, the announced rules, and a chain in which
        nobody could add, change or leave out an entry, a lock, a message or a draw unseen. Two things stay open. An operator chooses when
        the round opens and when it locks. And nobody can prove that the secret was not read beforehand by a person who controls the server.
        Such a person could pick the moment of the lock, or write a message to shake the drum.
      </p>
    </>
  );
}
function Line({ name, value }: Readonly<{ name: string; value: string }>) {
  return (
    <div>
      <dt>{name}</dt>
      <dd className="hash">{value}</dd>
    </div>
  );
}

/** The digits of a hash in what was pasted; empty where there are too few of them. */
function hashIn(pasted: string): string {
  const digits = pasted.trim().replace(/…$/, "").toLowerCase();
  return /^[0-9a-f]+$/.test(digits) && digits.length >= leastSeen ? digits : "";
}

/** Names of what is in the list, where what was announced names them: any list of things with an id and a label. */
function namesIn(settings: unknown): ReadonlyMap<string, string> {
  const lists = Object.values((settings ?? {}) as Record<string, unknown>).filter(Array.isArray);
  const things = lists.flat() as ({ id?: unknown; label?: unknown } | null)[];
  return new Map(things.filter((t) => typeof t?.id === "string").map((t) => [String(t?.id), String(t?.label ?? "") || "a picture"]));
}
