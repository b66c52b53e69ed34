import { type StudioView, studioViewSchema } from "../../core/games/scene-changes/settings";
import { lettering, lookNow } from "../../overlay/dress";
import { shortened } from "../../overlay/letters";
import { ease } from "../../overlay/motion";
import { leastLetter, OwnSurface } from "../../overlay/own-surface";
import { drawPanel, writeOn } from "../../overlay/panel";
import type { Scene, SceneKit } from "../../overlay/scene";

const changeMs = 320;
const example: StudioView = { on: true, connected: false, scenes: ["Throwing", "Kiln door", "Glaze bench"], current: null, hold: null };

/** Nothing on a broadcast; in a preview the made-up studio's scenes, and which of them is on. */
export function studioScene({ paint, sprites, preview = false, still }: SceneKit): Scene {
  let view: StudioView = example;
  let changedMs = -Infinity;
  let drawnKey = "";
  const surface = new OwnSurface(paint);
  return {
    live: 0,
    shown: () => ({ current: view.current, connected: view.connected }),
    setView: (given) => {
      const parsed = studioViewSchema.safeParse(given);
      if (!parsed.success) return;
      if (parsed.data.current !== view.current) changedMs = sprites.nowMs;
      view = parsed.data;
      drawnKey = "";
    },
    effect: () => undefined,
    rehearse: () => undefined,
    clear: () => undefined,
    stack: (order) => surface.stack(order),
    free: () => surface.free(),
    frame: (nowMs, box) => {
      if (!preview) return false;
      const { width, height, scale, context } = surface.fit(box);
      const u = still ? 1 : ease((nowMs - changedMs) / changeMs);
      const key = `${width} ${height} ${box.letters ?? 0} ${u} ${view.current ?? ""}`;
      if (key === drawnKey || context === null) return u < 1;
      drawnKey = key;
      context.setTransform(1, 0, 0, 1, 0, 0);
      context.clearRect(0, 0, width, height);
      const least = leastLetter(box, scale);
      const scenes = (view.scenes.length === 0 ? example.scenes : view.scenes).slice(0, 6);
      const gap = width * 0.025;
      const wide = (width - gap * (scenes.length - 1)) / scenes.length;
      const high = Math.min(wide * 0.62, height * 0.6);
      scenes.forEach((name, i) => {
        const on = view.current === name;
        const grown = on ? 1 + 0.05 * u : 1;
        context.save();
        context.translate(i * (wide + gap) + wide / 2, height * 0.42);
        context.scale(grown, grown);
        context.translate(-wide / 2, -high / 2);
        drawPanel(context, wide, high, 1);
        context.globalAlpha = 1;
        if (on) {
          context.strokeStyle = lookNow().accent;
          context.lineWidth = Math.max(3, high * 0.05);
          context.strokeRect(0, 0, wide, high);
        }
        const size = Math.max(least, high * 0.17);
        context.font = lettering(700, size);
        context.textAlign = "center";
        context.textBaseline = "middle";
        context.fillStyle = on ? lookNow().accent : lookNow().letters;
        writeOn(context, shortened(context, name, wide * 0.9), wide / 2, high / 2, size);
        context.restore();
      });
      const size = Math.max(least, height * 0.07);
      context.font = lettering(600, size);
      context.textAlign = "center";
      context.fillStyle = "#FFF8E8";
      context.lineJoin = "round";
      context.lineWidth = size * 0.24;
      context.strokeStyle = "rgba(16,19,27,.92)";
      const said =
        view.current === null
          ? "a made-up studio: nothing here reaches yours"
          : view.hold === null
            ? `“${view.current}” is on`
            : `“${view.hold.scene}” holds, then back to “${view.hold.back}”`;
      context.strokeText(said, width / 2, height * 0.9);
      context.fillText(said, width / 2, height * 0.9);
      return u < 1;
    },
  };
}
