import { chancesInWords } from "../../chance/odds";
import { isRehearsed } from "../../chance/round";
import type { Audience } from "../../module/module";
import { arcsOf, inPlay, mayCome } from "./layout";
import type { WheelDurable, WheelSettings, WheelView } from "./settings";

/** What each may see. Where a spin that is on its way ends, nobody is told; the overlay needs the angle, and nothing else. */
export function wheelView(settings: WheelSettings, durable: WheelDurable, audience: Audience): Readonly<Record<string, unknown>> {
  const { spin, next, results } = durable;
  const may = new Set(mayCome(settings, durable).map((s) => s.id));
  const here = inPlay(settings, durable);
  const chances = chancesInWords(settings.segments.map((s) => (may.has(s.id) ? s.weight : 0)));
  const last = results[0] ?? null;
  const common = { on: durable.on, turning: spin !== null, inPlay: here.length, waiting: durable.waiting.length };
  if (audience === "overlay") {
    const place = last === null ? -1 : settings.segments.findIndex((s) => s.id === last.id);
    const view: WheelView = {
      on: durable.on,
      segments: settings.segments.map(({ id, label, colour, pattern, picture }, i) => ({
        label,
        colour,
        pattern,
        picture,
        rests: !may.has(id),
        chance: chances[i] ?? "",
      })),
      arcs: arcsOf(settings, durable).map((a) => ({ ...a })),
      angle: durable.angle,
      spin:
        spin === null
          ? null
          : { n: spin.promise.n, from: spin.from, to: spin.to, fromMs: spin.fromMs, ms: spin.endsMs - spin.fromMs, seed: spin.seed },
      waiting: durable.waiting.length,
      result:
        last === null || place < 0 || spin !== null
          ? null
          : { n: last.n, label: last.label, segment: place, by: last.isPublic ? last.by : "" },
      panelMs: settings.panelMs,
      looks: settings.looks,
    };
    return view;
  }
  const shown = {
    ...common,
    chances: settings.segments.map((s, i) => ({ label: s.label, chance: chances[i] ?? "", here: here.includes(i) })),
    // What a rehearsal promises is no promise to viewers.
    promise: next === null || (next.rehearsal && audience === "viewer") ? "" : next.commitment,
    round: next === null || (next.rehearsal && audience === "viewer") ? "" : next.round,
    results: (audience === "operator" ? results : results.filter((r) => !isRehearsed(r.round)).slice(0, 8)).map(
      ({ n, round, label, atMs, by, isPublic }) => ({ n, round, label, atMs, by: isPublic || audience === "operator" ? by : "" }),
    ),
  };
  if (audience === "viewer") return shown;
  return {
    ...shown,
    canSpin: durable.on && spin === null && may.size > 0,
    /** Whether one more may be paid for. */
    open: durable.on && may.size > 0 && durable.waiting.length < (spin === null ? Math.max(1, settings.mostWaiting) : settings.mostWaiting),
    away: settings.segments.length - here.length,
    endsMs: spin?.endsMs ?? 0,
    spinBy: spin?.who.by ?? "",
  };
}
