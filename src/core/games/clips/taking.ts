import { Map as Times } from "immutable";
import { refusal, type Refusal } from "../../kernel/refusal";
import type { Note, StepContext } from "../../module/module";
import type { Order } from "../../module/order";
import { staked } from "../../points/ledger";
import { mayAs } from "../../signals/signal";
import type { Viewer } from "../../signals/names";
import { hasHidden, showable } from "../../words/template";
import { type Asked, pointsFor } from "./asking";
import { type At, no, type Outcome, still } from "./outcome";
import { booked } from "./settling";
import { type Clip, type Pay, sizes } from "./settings";

const mostRemembered = 20_000;
/** What takes longer to be made than this is given up, and given back. */
const makingMs = 300_000;

export type Wanted = Readonly<{
  asked: Asked;
  source: string;
  viewer: Viewer | null;
  /** Free of roles and rests: sent by rule, or paid for with money. */
  free: boolean;
  atMs: number;
}>;
/** Whether a clip may be sent now; the first check that fails answers. */
export function mayCome(at: At, wanted: Wanted, ctx: StepContext): Refusal | null {
  const { settings, durable, transient } = at;
  const { viewer, atMs, asked: of } = wanted;
  if (!durable.on) return refusal("clips/off");
  if (viewer !== null && durable.barred.viewers.some((v) => v.id === viewer.id)) return refusal("clips/barred");
  if (!wanted.free && !mayAs(viewer, settings.roles)) return refusal("clips/role");
  if (hasHidden(of.title, ctx.hiddenWords)) return refusal("clips/hidden");
  const restMs = viewer === null ? 0 : (transient.own.get(viewer.id) ?? -Infinity) + settings.ownRestMs - atMs;
  if (!wanted.free && restMs > 0) return refusal("clips/rest", { freeInS: Math.ceil(restMs / 1000) });
  const same = (c: Clip): boolean => c.address === of.address && c.source === wanted.source && c.startMs === of.startMs;
  const all = durable.now === null ? durable.queue : [durable.now.clip, ...durable.queue];
  if (of.address + wanted.source !== "" && all.some(same)) return refusal("clips/same");
  if (durable.barred.files.some((f) => f.sha === wanted.source && f.sha !== "")) return refusal("clips/barred-file");
  return durable.queue.length >= settings.mostWaiting ? refusal("clips/full", { most: settings.mostWaiting }) : null;
}

/** Into the queue, and on its way to be made; what was shown before is not made twice. */
export function taken(at: At, wanted: Wanted, seconds: number, pay: Pay, ctx: StepContext): Outcome {
  const { settings, durable } = at;
  const { viewer, asked: of, source, atMs } = wanted;
  const n = durable.made + 1;
  const who = viewer === null ? null : { id: viewer.id, name: showable(viewer.name, ctx.hiddenWords, 40) };
  const ms = seconds * 1000;
  const clip: Clip = {
    n,
    viewer: who,
    address: of.address,
    source,
    title: showable(of.title, ctx.hiddenWords, 80),
    startMs: of.startMs,
    ms,
    pay,
    askedMs: atMs,
    phase: "making",
    lateMs: atMs + makingMs,
    facts: null,
    sha: source,
  };
  const { width, height } = sizes[settings.size];
  const request = {
    address: source === "" ? of.address : null,
    startMs: of.startMs,
    ms,
    width,
    height,
    mostSourceMs: settings.mostSourceMs,
  };
  const order: Order = { do: "film", n, request, source, name: clip.title === "" ? "a clip" : clip.title };
  const own =
    viewer === null
      ? at.transient.own
      : (at.transient.own.size > mostRemembered ? Times<string, number>() : at.transient.own).set(viewer.id, atMs);
  const note: Note = {
    did: "clips/taken",
    count: 1,
    subject: who?.name ?? "",
    facts: { n, seconds, paid: "amount" in pay ? pay.amount : 0, by: pay.by },
  };
  return {
    ...still(at, [note]),
    durable: { ...durable, made: n, queue: [...durable.queue, clip] },
    transient: { own },
    // A rehearsal has nothing made: somebody may be waiting for it on air.
    orders: ctx.rehearsing ? [] : [order],
    ...(pay.by === "points" && viewer !== null && pay.amount > 0
      ? {
          booking: booked(
            [staked({ key: pay.key, atMs, about: clip.title === "" ? "a clip" : clip.title, by: "" }, viewer.id, pay.amount)],
            viewer,
          ),
        }
      : {}),
  };
}

/** By points, by the second: what it would cost is told before anything is taken. */
export function byPoints(at: At, wanted: Wanted, seq: number, ctx: StepContext): Outcome {
  const { settings } = at;
  const { viewer } = wanted;
  const why = mayCome(at, wanted, ctx);
  if (why !== null) return still(at, [{ refusal: why, count: 1, subject: viewer?.name ?? "" }]);
  if (viewer === null || settings.points.perSecond === 0) return no(at, "clips/no-points");
  const { seconds, price } = pointsFor(settings, wanted.asked.ms);
  const has = ctx.ledgerView.balance(viewer.id);
  if (has < price) return no(at, "clips/too-poor", { price, has, seconds, name: ctx.pointsName });
  return taken(at, wanted, seconds, { by: "points", amount: price, perSecond: settings.points.perSecond, key: `clip.${seq}` }, ctx);
}
