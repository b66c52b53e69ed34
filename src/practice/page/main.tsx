import { useEffect, useRef, useState } from "react";
import { createRoot } from "react-dom/client";
import type { CrowdSettings } from "../../core/lab/crowd";
import type { Person } from "../viewers";
import { Gives } from "./gives";
import { Crowd } from "./crowd";
import { post } from "./post";
import { type Film, Shelf } from "./shelf";
import { Studio, type StudioState } from "./studio";
import "./style.css";

type SetUp = {
  people: Person[];
  own: string[];
  platform: string[];
  emoji: string[];
  rooms: Record<string, Omit<CrowdSettings, "seed">>;
  channel: string;
  reactions: string[];
  films: Film[];
};
type Said = { n: number; name: string; badges: string[]; text: string };
type State = {
  connected: number;
  crowd: CrowdSettings | null;
  said: number;
  log: Said[];
  pad: { name: string; set: boolean }[];
  studio: StudioState;
};

function Words({ text, setUp }: { text: string; setUp: SetUp }) {
  return text.split(" ").map((word, i) => {
    const from = setUp.own.includes(word) ? "own" : setUp.platform.includes(word) ? "emotes" : null;
    return (
      <span key={i}>
        {i > 0 ? " " : ""}
        {from === null ? word : <img src={`/${from}/${word}`} alt={word} title={word} />}
      </span>
    );
  });
}

function App() {
  const [setUp, setSetUp] = useState<SetUp | null>(null);
  const [state, setState] = useState<State>({
    connected: 0,
    crowd: null,
    said: 0,
    log: [],
    pad: [],
    studio: { scenes: [], current: null, manner: "good", connected: 0, asked: 0 },
  });
  const [as, setAs] = useState("mossy_teapot");
  const [text, setText] = useState("");
  const logBox = useRef<HTMLDivElement>(null);
  const input = useRef<HTMLInputElement>(null);
  const seen = useRef(0);

  useEffect(
    () =>
      void fetch("/set-up")
        .then((r) => r.json())
        .then(setSetUp),
    [],
  );
  useEffect(() => {
    let on = true;
    const look = async (): Promise<void> => {
      try {
        const next = (await (await fetch(`/state?after=${seen.current}`)).json()) as State;
        seen.current = next.log.at(-1)?.n ?? seen.current;
        if (on) setState((old) => ({ ...next, log: [...old.log, ...next.log].slice(-80) }));
      } catch {
        if (on) setState((old) => ({ ...old, connected: 0 }));
      }
      if (on) setTimeout(look, 400);
    };
    void look();
    return () => void (on = false);
  }, []);
  useEffect(() => {
    const box = logBox.current;
    if (box !== null) box.scrollTop = box.scrollHeight;
  }, [state.log]);

  if (setUp === null) return null;
  const add = (word: string): void => {
    setText((t) => (t === "" || t.endsWith(" ") ? `${t}${word}` : `${t} ${word}`));
    input.current?.focus();
  };
  const say = async (): Promise<void> => {
    if (text.trim() === "") return;
    await post("/say", { as, text });
    setText("");
  };
  const role = (p: Person): string => (p.badges.length > 0 ? ` · ${p.badges.join(", ")}` : "");

  return (
    <div className="page">
      <header>
        <h1>Practice rig</h1>
        <p>A stand-in for a chat platform. Nobody real reads this.</p>
        <span className={state.connected > 0 ? "standing" : "standing off"} role="status">
          {state.connected > 0 ? "Izzam is listening" : "Izzam is not connected"}
        </span>
      </header>
      <main className="talk">
        <h2>Chat of Saltmarsh Kiln</h2>
        <div className="log" ref={logBox} role="log" aria-label="Chat" tabIndex={0}>
          {state.log.length === 0 && (
            <p className="empty">Nobody has said anything yet. Choose who you are, type below, or let a crowd talk.</p>
          )}
          {state.log.map((said) => (
            <p key={said.n}>
              <b>{said.name}</b>
              {said.badges.length > 0 && <span className="badge">{said.badges.join(", ")}</span>}
              <Words text={said.text} setUp={setUp} />
            </p>
          ))}
        </div>
        <form
          className="say"
          onSubmit={(e) => {
            e.preventDefault();
            void say();
          }}
        >
          <select aria-label="Speak as" value={as} onChange={(e) => setAs(e.target.value)}>
            {setUp.people.map((p) => (
              <option key={p.nick} value={p.nick}>
                {p.name}
                {role(p)}
              </option>
            ))}
          </select>
          <input
            ref={input}
            type="text"
            aria-label="Message"
            placeholder="Say something"
            value={text}
            onChange={(e) => setText(e.target.value)}
            maxLength={2000}
            autoFocus
          />
          <button className="main" type="submit">
            Send
          </button>
        </form>
      </main>
      <aside>
        <section aria-label="Emotes">
          <h2>Emotes</h2>
          <p className="kind">The channel’s own words</p>
          <div className="palette">
            {setUp.own.map((word) => (
              <button key={word} type="button" title={word} aria-label={word} onClick={() => add(word)}>
                <img src={`/own/${word}`} alt="" />
              </button>
            ))}
          </div>
          <p className="kind">The platform’s, and emoji</p>
          <div className="palette">
            {setUp.platform.map((word) => (
              <button key={word} type="button" title={word} aria-label={word} onClick={() => add(word)}>
                <img src={`/emotes/${word}`} alt="" />
              </button>
            ))}
            {setUp.emoji.map((e) => (
              <button key={e} type="button" onClick={() => add(e)}>
                {e}
              </button>
            ))}
          </div>
        </section>
        <Studio studio={state.studio} />
        <Shelf
          films={setUp.films}
          onPick={(film) => {
            setText(`!clip ${film}`);
            input.current?.focus();
          }}
        />
        <Gives people={setUp.people} reactions={setUp.reactions} pad={state.pad} />
        <Crowd rooms={setUp.rooms} running={state.crowd} said={state.said} />
      </aside>
    </div>
  );
}

const root = document.getElementById("root");
if (root !== null) createRoot(root).render(<App />);
