import { useState } from "react";
import { counted } from "../../core/words/sentence";
import type { CrowdSettings } from "../../core/lab/crowd";

const names: Record<string, string> = { quiet: "Quiet room", usual: "Usual evening", busy: "Busy", storm: "Storm" };
const send = (path: string, body: unknown): void =>
  void fetch(path, { method: "POST", headers: { "content-type": "application/json" }, body: JSON.stringify(body) });

/** The simulated crowd: a ready-made room, or every number by hand; the same seed says the same again. */
export function Crowd({
  rooms,
  running,
  said,
}: {
  rooms: Record<string, Omit<CrowdSettings, "seed">>;
  running: CrowdSettings | null;
  said: number;
}) {
  const [settings, setSettings] = useState<CrowdSettings>({
    seed: 7,
    ...(rooms["usual"] ?? { perSecond: 2, emoteShare: 0.4, copyShare: 0.2, rushesPerMinute: 0.5, givesPerMinute: 0 }),
  });
  const set = (part: Partial<CrowdSettings>): void => {
    const next = { ...settings, ...part };
    setSettings(next);
    if (running !== null) send("/crowd", next);
  };
  const same = (room: Omit<CrowdSettings, "seed">): boolean =>
    Object.entries(room).every(([k, v]) => settings[k as keyof CrowdSettings] === v);
  const percent = (v: number): string => `${Math.round(v * 100)} %`;
  return (
    <section aria-label="Crowd">
      <h2>A crowd that talks by itself</h2>
      <div className="rooms">
        {Object.entries(rooms).map(([id, room]) => (
          <button key={id} type="button" aria-pressed={same(room)} onClick={() => set(room)}>
            {names[id] ?? id}
          </button>
        ))}
      </div>
      {/* From one message in twenty seconds to a thousand a second: the slider walks in powers of ten. */}
      <Range
        label="Messages"
        value={Math.log10(settings.perSecond)}
        min={-1.3}
        max={3}
        step={0.05}
        says={`${settings.perSecond} a second`}
        onSet={(power) => set({ perSecond: Number((10 ** power).toPrecision(2)) })}
      />
      <Range
        label="With emotes"
        value={settings.emoteShare}
        max={1}
        step={0.05}
        says={percent(settings.emoteShare)}
        onSet={(emoteShare) => set({ emoteShare })}
      />
      <Range
        label="Copies of others"
        value={settings.copyShare}
        max={1}
        step={0.05}
        says={percent(settings.copyShare)}
        onSet={(copyShare) => set({ copyShare })}
      />
      <Range
        label="Sudden rushes"
        value={settings.rushesPerMinute}
        max={10}
        step={0.5}
        says={`${settings.rushesPerMinute} a minute`}
        onSet={(rushesPerMinute) => set({ rushesPerMinute })}
      />
      <Range
        label="Follows, tips, gifts"
        value={Math.log10(Math.max(0.1, settings.givesPerMinute))}
        min={-1}
        max={2.6}
        step={0.1}
        says={`${settings.givesPerMinute} a minute`}
        onSet={(power) => set({ givesPerMinute: power <= -1 ? 0 : Number((10 ** power).toPrecision(2)) })}
      />
      <label className="row">
        Seed{" "}
        <input
          type="number"
          min={0}
          max={4294967295}
          value={settings.seed}
          onChange={(e) => set({ seed: Math.max(0, Math.floor(Number(e.target.value) || 0)) })}
        />
        <span />
      </label>
      <div className="go">
        {running === null ? (
          <button type="button" className="main" onClick={() => send("/crowd", settings)}>
            Let them talk
          </button>
        ) : (
          <button type="button" onClick={() => send("/crowd/stop", {})}>
            Quiet, please
          </button>
        )}
        <span className="soft" role="status">
          {running === null ? "Silent." : `${counted(said, "message")} so far.`}
        </span>
      </div>
      <p className="soft">The same seed and numbers say the same lines in the same order.</p>
    </section>
  );
}

type RangeProps = Readonly<{
  label: string;
  value: number;
  min?: number;
  max: number;
  step: number;
  says: string;
  onSet: (value: number) => void;
}>;
function Range({ label, value, min = 0, max, step, says, onSet }: RangeProps) {
  return (
    <label className="row">
      {label} <input type="range" min={min} max={max} step={step} value={value} onChange={(e) => onSet(Number(e.target.value))} />
      <output>{says}</output>
    </label>
  );
}
