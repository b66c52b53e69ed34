import { useState } from "react";
import type { Person } from "../viewers";

type Kind = Readonly<{ id: string; label: string; unit: string; amount: number; text: boolean }>;
const kinds: readonly Kind[] = [
  { id: "follow", label: "Follow", unit: "", amount: 1, text: false },
  { id: "membership", label: "Join", unit: "month", amount: 1, text: true },
  { id: "gift", label: "Gift", unit: "memberships", amount: 5, text: false },
  { id: "tip", label: "Tip", unit: "money", amount: 5, text: true },
  { id: "reaction", label: "Sherds", unit: "sherds", amount: 50, text: true },
  { id: "raid", label: "Raid", unit: "viewers", amount: 30, text: false },
  { id: "host", label: "Host", unit: "viewers", amount: 12, text: false },
  { id: "purchase", label: "Buy the bell", unit: "", amount: 1, text: true },
  { id: "forecast", label: "Forecast", unit: "step", amount: 1, text: false },
  { id: "live", label: "Go live", unit: "", amount: 1, text: false },
  { id: "ended", label: "End", unit: "", amount: 1, text: false },
];
const post = async (path: string, body: unknown): Promise<{ ok: boolean; words?: string }> => {
  const response = await fetch(path, { method: "POST", headers: { "content-type": "application/json" }, body: JSON.stringify(body) });
  return (await response.json()) as { ok: boolean; words?: string };
};

/** What a platform sends, one at a time, through the signed endpoint. */
export function Gives({
  people,
  reactions,
  pad,
}: {
  people: readonly Person[];
  reactions: readonly string[];
  pad: readonly { name: string; set: boolean }[];
}) {
  const [kind, setKind] = useState<Kind>(kinds[0] as Kind);
  const [as, setAs] = useState("mossy_teapot");
  const [amount, setAmount] = useState(1);
  const [currency, setCurrency] = useState("EUR");
  const [reaction, setReaction] = useState("sherd");
  const [text, setText] = useState("");
  const [said, setSaid] = useState("");
  const send = async (): Promise<void> => {
    // With a text, paid reactions travel inside the chat message, as the demo platform has it.
    if (kind.id === "reaction" && text.trim() !== "" && as !== "") {
      const done = await post("/say", { as, text, paid: { reaction, count: Math.max(1, Math.round(amount)) } });
      return setSaid(done.ok ? "Said in chat, with the sherds in it." : `Not said: ${done.words ?? "no"}.`);
    }
    const digits = currency === "JPY" ? 1 : 100;
    const done = await post("/event", {
      kind: kind.id,
      as,
      amount: kind.id === "tip" ? Math.round(amount * digits) : Math.round(amount),
      currency,
      reaction,
      text,
    });
    setSaid(done.ok ? "Izzam took it." : `Izzam said: ${done.words ?? "no"}.`);
  };
  return (
    <section aria-label="Events">
      <h2>What the platform sends</h2>
      <div className="rooms">
        {kinds.map((k) => (
          <button
            key={k.id}
            type="button"
            aria-pressed={k.id === kind.id}
            onClick={() => {
              setKind(k);
              setAmount(k.amount);
            }}
          >
            {k.label}
          </button>
        ))}
      </div>
      {kind.id !== "live" && kind.id !== "ended" && (
        <label className="row">
          By
          <select value={as} onChange={(e) => setAs(e.target.value)} aria-label="Given by">
            {["gift", "tip", "reaction"].includes(kind.id) && <option value="">somebody unknown</option>}
            {people.map((p) => (
              <option key={p.nick} value={p.nick}>
                {p.name}
              </option>
            ))}
          </select>
          <span />
        </label>
      )}
      {kind.unit !== "" && (
        <label className="row">
          {kind.id === "membership"
            ? "For month"
            : kind.id === "forecast"
              ? "Step: 1 opens, 2 backed, 3 locks, 4 decided, 5 called off"
              : "Amount"}
          <input
            type="number"
            aria-label="Amount"
            min={0}
            step={kind.unit === "money" ? 0.01 : 1}
            value={amount}
            onChange={(e) => setAmount(Number(e.target.value))}
          />
          {kind.unit === "money" ? (
            <select value={currency} onChange={(e) => setCurrency(e.target.value)} aria-label="Currency">
              {["EUR", "GBP", "JPY", "SEK"].map((c) => (
                <option key={c}>{c}</option>
              ))}
            </select>
          ) : kind.id === "reaction" ? (
            <select value={reaction} onChange={(e) => setReaction(e.target.value)} aria-label="Kind of reaction">
              {reactions.map((r) => (
                <option key={r}>{r}</option>
              ))}
            </select>
          ) : (
            <output>{kind.id === "membership" ? "" : kind.unit}</output>
          )}
        </label>
      )}
      {kind.text && (
        <label className="row">
          Saying <input type="text" value={text} maxLength={500} onChange={(e) => setText(e.target.value)} aria-label="Text with it" />
          <span />
        </label>
      )}
      <div className="go">
        <button type="button" className="main" onClick={() => void send()}>
          Send it, signed
        </button>
        <span className="soft" role="status">
          {said}
        </span>
      </div>
      <h2>Button pad</h2>
      <div className="pad">
        {pad.map((button, n) => (
          <button
            key={n}
            type="button"
            disabled={!button.set}
            onClick={() => void post("/pad/press", { n }).then((r) => setSaid(r.words ?? ""))}
          >
            {button.set ? button.name : "empty"}
          </button>
        ))}
      </div>
      <PadSetting />
    </section>
  );
}

function PadSetting() {
  const [url, setUrl] = useState("");
  const [secret, setSecret] = useState("");
  return (
    <details>
      <summary>Other address, other secret</summary>
      <label className="row">
        Button 6 calls <input type="url" value={url} onChange={(e) => setUrl(e.target.value)} placeholder="http://…/trigger/…" />
        <button type="button" onClick={() => void post("/pad", { n: 5, name: "button 6", url })}>
          Set
        </button>
      </label>
      <label className="row">
        Signs with{" "}
        <input type="password" autoComplete="off" value={secret} onChange={(e) => setSecret(e.target.value)} placeholder="whsec_…" />
        <button type="button" onClick={() => void post("/secret", { secret })}>
          Set
        </button>
      </label>
    </details>
  );
}
