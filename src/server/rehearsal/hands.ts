import { viewerId } from "../../core/kernel/text";
import type { GivenSignal } from "../../core/module/game";
import type { GivenAsk } from "../../core/rehearsal/plan";
import type { FromEvent } from "../../core/signals/events";
import type { Runner } from "../engine/runner";
import type { Coming } from "./crowd";

/** Hands a runner what comes, by the door by which it would come to the channel. What came of it is told as everything is. */
export function give(runner: Runner, coming: Coming, id: string): void {
  const { requests, inbox } = runner;
  if ("cue" in coming) return void requests.cue(coming.cue, coming.by, id, "click");
  if ("command" in coming) {
    const { game, command, viewer, by } = coming;
    // The show is the rehearsal's own: what began and ended the one that is played again does not end this one.
    if (command.do === "show") return;
    return void (viewer === null ? requests.command(game, by, id, command) : requests.act(viewer, { id, game, command }));
  }
  const { signal } = coming;
  if (signal.kind === "message") {
    const { viewer, text, marks } = signal;
    return inbox.message({ id, viewerId: viewer.id, name: viewer.name, roles: viewer.roles, text, marks, target: runner.id });
  }
  if (signal.kind === "purchase-request") {
    const { viewer, rewardId, text } = signal;
    return void requests.purchase(viewer, { id, reward: rewardId, text, price: Number.MAX_SAFE_INTEGER });
  }
  // What a platform sends, and nothing else, is left.
  void inbox.platform([{ id, signal: signal as unknown as FromEvent }]);
}

/** One signal as any viewer, with the roles that they have there; null for nobody. */
export function signalOf({ inbox, modules }: Runner, { kind, as, text, amount }: GivenAsk): GivenSignal | null {
  const id = viewerId(as);
  if (id === "") return null;
  const viewer = inbox.withRoles({ id, name: as.trim(), roles: ["viewer"] });
  switch (kind) {
    case "message":
      return { kind, viewer, text, marks: [] };
    case "follow":
      return { kind, viewer };
    case "membership":
      return { kind, viewer, months: Math.min(2_400, amount), text, fromGift: "" };
    case "gift":
      return { kind, viewer, count: amount, recipients: [] };
    case "tip":
      return { kind, viewer, amountMinor: amount, currency: modules.provided().money?.home ?? "EUR", homeMinor: null, text };
    case "reaction":
      return { kind, viewer, reaction: "cheer", count: amount, value: amount, text };
    case "raid":
    case "host":
      return { kind, viewer, viewers: amount };
  }
}
