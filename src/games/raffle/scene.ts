import { leastLetter, OwnSurface } from "../../overlay/own-surface";
import type { Scene, SceneKit } from "../../overlay/scene";
import { paintRack } from "./paint";
import { revealS } from "./reveal";
import type { Tag } from "./tag";
import { type RaffleView, viewSchema } from "./view";

const enterMs = 700;
/** When the name stands still it is looked at so long before the next is drawn. */
const lookMs = 2_200;
/** After a result, or when it was closed, it stays so long. */
const leaveMs = 12_000;
const fadeMs = 500;

/** Tags on a drying rack; the drawn one is lifted out and turned. Redrawn only while something moves. */
export function raffleScene({ still, preview = false, paint }: SceneKit): Scene {
  let view: RaffleView | null = null;
  const surface = new OwnSurface(paint);
  let tags: Tag[] = [];
  let lifted: Readonly<{ index: number; name: string; prize: string; atMs: number }> | null = null;
  /** Drawn, and not shown yet: one after another. */
  let toShow: RaffleView["winners"] = [];
  let seenWinners = 0;
  let endedMs = -Infinity;
  let shookMs = -Infinity;
  let drawnKey = "";
  let nowMs = 0;

  /** Who is new hangs in front; who has left is taken down. */
  const hang = (names: readonly string[], atMs: number, first: boolean): void => {
    const before = new Map(tags.map((t) => [t.name, t]));
    tags = names.map((name) => before.get(name) ?? { name, atMs: first ? -Infinity : atMs });
  };

  return {
    get live() {
      return view?.on === true && view.phase !== "" ? 1 : 0;
    },
    shown: () => (view === null ? null : { phase: view.phase, people: view.people, winners: view.winners.map((w) => w.name) }),
    setView: (given) => {
      const parsed = viewSchema.safeParse(given);
      if (!parsed.success) return;
      const before = view;
      view = parsed.data;
      drawnKey = "";
      hang(view.names, nowMs, before === null);
      if (before !== null && before.phase !== "" && view.phase === "") {
        endedMs = nowMs;
        // The last picture stays a while: what it said is still true.
        view = { ...before, on: view.on, phase: "" };
        tags = before.names.map((name) => ({ name, atMs: -Infinity }));
      } else if (view.phase !== "") endedMs = -Infinity;
      if (before !== null && view.shaken > before.shaken) shookMs = nowMs;
      if (view.phase !== "" && view.winners.length > seenWinners) {
        const fresh = view.winners.slice(seenWinners);
        // Who joins in the middle sees who was drawn last, at rest.
        const last = fresh[fresh.length - 1];
        if (before === null && last !== undefined) lifted = { index: last.index, name: last.name, prize: last.prize, atMs: -Infinity };
        else toShow = [...toShow, ...fresh];
      } else if (view.winners.length < seenWinners) {
        lifted = null;
        toShow = [];
      }
      seenWinners = view.winners.length;
    },
    effect: () => undefined,
    rehearse: () => undefined,
    clear: (_, atOnce) => {
      if (!atOnce) return;
      drawnKey = "";
      surface.empty();
    },
    stack: (order) => surface.stack(order),
    free: () => surface.free(),
    frame: (now, box) => {
      nowMs = now;
      if (view === null) return false;
      const { width, height, scale, context } = surface.fit(box);
      const restMs = still ? 0 : revealS[view.looks.present] * 1000;
      const [next] = toShow;
      if (next !== undefined && (lifted === null || now - lifted.atMs > restMs + lookMs)) {
        lifted = { index: next.index, name: next.name, prize: next.prize, atMs: now };
        toShow = toShow.slice(1);
        drawnKey = "";
      }
      const there = visible(view, now);
      const untilMs = view.phase === "open" ? view.locksMs : (view.winners.find((w) => w.state === "waits")?.untilMs ?? 0);
      const clock = untilMs > 0 ? Math.max(0, Math.ceil((untilMs - Date.now()) / 1000)) : -1;
      const moves =
        !still &&
        (tags.some((t) => now - t.atMs < enterMs) ||
          (lifted !== null && now - lifted.atMs < restMs + 1_400) ||
          now - shookMs < 600 ||
          (there > 0 && there < 1));
      const waits = clock >= 0 || toShow.length > 0 || view.phase === "shaking" || now - endedMs < leaveMs + fadeMs;
      const key = `${width} ${height} ${box.letters ?? 0} ${there} ${clock} ${lifted?.atMs ?? 0}`;
      if (!moves && key === drawnKey) return waits;
      drawnKey = moves ? "" : key;
      if (context !== null)
        paintRack(context, {
          view,
          tags,
          lifted: lifted === null ? null : { ...lifted, sinceS: still ? 99 : (now - lifted.atMs) / 1000 },
          nowMs: now,
          width,
          height,
          least: leastLetter(box, scale),
          there,
          clock,
          shakeS: still ? 9 : (now - shookMs) / 1000,
          still,
        });
      return moves || waits;
    },
  };

  /** 0 away, 1 there: from its opening until a while after its end. */
  function visible(v: RaffleView, now: number): number {
    if (!v.on) return 0;
    if (v.phase !== "" || preview) return 1;
    return Math.max(0, Math.min(1, (endedMs + leaveMs - now) / fadeMs));
  }
}
