/**
 * Steps that lead stored rules, cues, rewards, moderators' words and what waits of them from one version to the next. A
 * published step is never changed: it reads what there was then, whatever is there now.
 */
type Old = Readonly<Record<string, unknown>>;
const isOld = (value: unknown): value is Old => typeof value === "object" && value !== null && !Array.isArray(value);
/** Each of a list made new; what is not as described stays as it is, for the schema to refuse. */
const each = (value: unknown, make: (old: Old) => unknown): unknown =>
  Array.isArray(value) ? value.map((v: unknown) => (isOld(v) ? make(v) : v)) : value;

/** Version 1 had a deed of its own for each thing that some game could do; now it is the game's action, by name. */
export function deedTo2(old: Old): Old {
  const act = (name: unknown, input: Old, per: unknown = 1): Old => ({ do: "act", game: old["game"], act: name, input, per });
  const rate = isOld(old["rate"]) ? old["rate"] : {};
  switch (old["do"]) {
    case "damage":
      return act(old["how"], { amount: rate["give"] }, rate["per"]);
    case "flock":
      return act("flock", {
        count: old["count"],
        overMs: old["overMs"],
        emotes: { from: old["from"], chosen: old["chosen"] },
        motion: old["motion"],
      });
    case "tell-rules":
      return act("tell-rules", {});
    default:
      return old;
  }
}
const deedsTo2 = (value: unknown): unknown => each(value, deedTo2);
/** What a reward does was given for every point it costs; now it is what it says. */
function soldTo2(old: Old, price: unknown): Old {
  const now = deedTo2(old);
  const { per, input } = now;
  if (old["do"] !== "damage" || !isOld(input) || typeof price !== "number" || typeof per !== "number" || per < 1) return now;
  return { ...now, input: { amount: Math.min(1_000_000_000_000, Math.floor((price * Number(input["amount"])) / per)) }, per: 1 };
}

export const rulebookTo2 = (old: unknown): unknown =>
  isOld(old)
    ? {
        ...old,
        schema: 2,
        rules: each(old["rules"], (rule) => ({
          ...rule,
          tiers: each(rule["tiers"], (tier) => ({ ...tier, deeds: deedsTo2(tier["deeds"]) })),
        })),
      }
    : old;
export const cueBookTo2 = (old: unknown): unknown =>
  isOld(old)
    ? {
        ...old,
        schema: 2,
        cues: each(old["cues"], (cue) => ({ ...cue, deeds: deedsTo2(cue["deeds"]), offDeeds: deedsTo2(cue["offDeeds"]) })),
      }
    : old;
export const rewardBookTo2 = (old: unknown): unknown =>
  isOld(old)
    ? {
        ...old,
        schema: 2,
        rewards: each(old["rewards"], (r) => ({ ...r, deeds: each(r["deeds"], (d) => soldTo2(d, r["price"])) })),
      }
    : old;

/** Orders that wait: what a flock is of became one thing. */
const orderTo2 = (order: Old): Old => {
  const hand = order["hand"];
  if (order["do"] !== "hand" || !isOld(hand) || hand["do"] !== "flock") return order;
  const { count, overMs, from, chosen, motion } = hand;
  return { ...order, hand: { do: "flock", count, overMs, emotes: { from, chosen }, motion: motion ?? "" } };
};
export const pendingTo2 = (old: unknown): unknown =>
  isOld(old) && old["pending"] !== undefined
    ? { ...old, pending: each(old["pending"], (p) => ({ ...p, orders: each(p["orders"], orderTo2) })) }
    : old;

const wordActions: ReadonlyMap<unknown, string> = new Map([
  ["hit", "damage"],
  ["heal", "heal"],
  ["undo", "undo"],
  ["start-over", "start-over"],
  ["rules", "tell-rules"],
  ["flock", "flock"],
  ["clear", "clear"],
]);
export const showSettingsTo2 = (old: unknown): unknown =>
  isOld(old)
    ? {
        ...old,
        schema: 2,
        commands: each(old["commands"], (c) => {
          const act = wordActions.get(c["does"]);
          return act === undefined ? { ...c, act: "" } : { ...c, does: "act", act };
        }),
      }
    : old;

/** Version 3 calls what a rule, a cue, a reward does its effects, and where alerts take turns a queue. */
const effectsTo3 = (value: unknown): unknown =>
  each(value, ({ lane, ...effect }) => (lane === undefined ? effect : { ...effect, queue: lane }));
/** One that does something: a tier, a cue, a reward. */
const doerTo3 = ({ deeds, offDeeds, ...rest }: Old): Old => ({
  ...rest,
  effects: effectsTo3(deeds),
  ...(offDeeds === undefined ? {} : { offEffects: effectsTo3(offDeeds) }),
});
export const rulebookTo3 = (old: unknown): unknown => {
  if (!isOld(old)) return old;
  const { lanes, ...rest } = old;
  return { ...rest, schema: 3, queues: lanes, rules: each(old["rules"], (r) => ({ ...r, tiers: each(r["tiers"], doerTo3) })) };
};
export const cueBookTo3 = (old: unknown): unknown => (isOld(old) ? { ...old, schema: 3, cues: each(old["cues"], doerTo3) } : old);
export const rewardBookTo3 = (old: unknown): unknown => (isOld(old) ? { ...old, schema: 3, rewards: each(old["rewards"], doerTo3) } : old);

const orderTo3 = (order: Old): Old => {
  const { hand, lane, moment, ...rest } = order;
  if (order["do"] === "hand") return { ...rest, do: "command", command: hand };
  if (order["do"] === "show") return { ...rest, queue: lane, alert: moment };
  if (order["do"] === "tell") return { ...rest, do: "emit" };
  return order["do"] === "aside" ? { ...rest, do: "snapshot" } : order;
};
export const pendingTo3 = (old: unknown): unknown =>
  isOld(old) && old["pending"] !== undefined
    ? { ...old, pending: each(old["pending"], (p) => ({ ...p, orders: each(p["orders"], orderTo3) })) }
    : old;
export const cuesStateTo3 = (old: unknown): unknown => {
  const now = pendingTo3(old);
  return isOld(now) ? { ...now, on: each(now["on"], ({ moments, ...on }) => ({ ...on, alerts: moments })) } : now;
};
/** How games stood before a rehearsal is kept as a snapshot, by that name. */
export const showStateTo2 = (old: unknown): unknown => {
  if (!isOld(old)) return old;
  const { aside, ...rest } = old;
  return { ...rest, snapshot: aside };
};
