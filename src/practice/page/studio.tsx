import { post } from "./post";

export type StudioState = { scenes: string[]; current: string | null; manner: string; connected: number; asked: number };
const manners: Record<string, string> = {
  good: "does as it is told",
  slow: "is two seconds late",
  refuses: "will not switch",
  vanished: "is not there",
};

/** What the camera sees in each of the made-up scenes. */
function Scene({ name }: { name: string }) {
  switch (name) {
    case "Throwing":
      return (
        <>
          <ellipse cx="160" cy="142" rx="92" ry="20" fill="#7d8597" />
          <path d="M118 138 C104 92 122 66 142 62 L178 62 C198 66 216 92 202 138 Z" fill="#bb8563" />
          <ellipse cx="160" cy="62" rx="18" ry="5" fill="#6e4a36" />
        </>
      );
    case "Hands":
      return (
        <>
          <path d="M0 180 C40 120 96 96 140 112 C152 118 148 134 134 136 L96 148 L60 180 Z" fill="#d5a27e" />
          <path d="M320 180 C280 120 224 96 180 112 C168 118 172 134 186 136 L224 148 L260 180 Z" fill="#d5a27e" />
          <ellipse cx="160" cy="116" rx="34" ry="22" fill="#a9714f" />
        </>
      );
    case "Kiln door":
      return (
        <>
          <path d="M70 170 L70 90 C70 20 250 20 250 90 L250 170 Z" fill="#5a2f26" />
          <path d="M100 170 L100 96 C100 48 220 48 220 96 L220 170 Z" fill="#e0702a" />
          <path d="M128 170 L128 108 C128 78 192 78 192 108 L192 170 Z" fill="#ffd27a" />
        </>
      );
    case "Glaze bench":
      return (
        <>
          {["#3f7a74", "#e0a025", "#37598a", "#b23a2b"].map((glaze, i) => (
            <g key={glaze}>
              <rect x={34 + i * 68} y="84" width="48" height="66" rx="8" fill="#efe6d2" />
              <rect x={34 + i * 68} y="108" width="48" height="42" rx="8" fill={glaze} />
            </g>
          ))}
        </>
      );
    case "Tea break":
      return (
        <>
          <path d="M112 70 L208 70 L200 152 L120 152 Z" fill="#efe6d2" />
          <path d="M206 84 C240 80 240 132 202 128" fill="none" stroke="#efe6d2" strokeWidth="10" />
          <path d="M140 58 C132 44 148 38 140 22 M164 58 C156 44 172 38 164 22" fill="none" stroke="#fff8e8" strokeWidth="4" />
        </>
      );
    default:
      return (
        <>
          <rect x="24" y="128" width="272" height="10" fill="#4b3324" />
          {["#b4552f", "#9db39a", "#cda35c", "#5f86a8"].map((clay, i) => (
            <path
              key={clay}
              d={`M${40 + i * 66} 128 C${28 + i * 66} 100 ${36 + i * 66} 78 ${52 + i * 66} 72 L${68 + i * 66} 72 C${84 + i * 66} 78 ${92 + i * 66} 100 ${80 + i * 66} 128 Z`}
              fill={clay}
            />
          ))}
        </>
      );
  }
}

/** The rig's studio: what is on the program picture, its scenes by hand, and how it behaves. */
export function Studio({ studio }: { studio: StudioState }) {
  const { scenes, current, manner, connected } = studio;
  return (
    <section className="studio" aria-label="Studio">
      <h2>Studio</h2>
      <p className="hint">
        {connected === 0 ? "Izzam is not connected to it." : "Izzam is connected to it."} It was asked {studio.asked} times for a scene.
      </p>
      <svg viewBox="0 0 320 180" role="img" aria-label={`Program picture: ${current ?? "nothing"}`}>
        <rect width="320" height="180" fill="#4a4038" />
        <rect y="120" width="320" height="60" fill="#6b5344" />
        <Scene name={current ?? ""} />
        <text x="10" y="22" fontSize="14" fontWeight="700" fill="#fff8e8">
          {current ?? "nothing is on"}
        </text>
      </svg>
      <div className="scenes" role="group" aria-label="Scenes">
        {scenes.map((scene) => (
          <button key={scene} type="button" aria-pressed={scene === current} onClick={() => void post("/studio", { show: scene })}>
            {scene}
          </button>
        ))}
      </div>
      <label>
        It{" "}
        <select
          value={manner}
          onChange={(e) => void post("/studio", { manner: e.currentTarget.value })}
          aria-label="How the studio behaves"
        >
          {Object.entries(manners).map(([value, words]) => (
            <option key={value} value={value}>
              {words}
            </option>
          ))}
        </select>
      </label>
    </section>
  );
}
