import { randomUUID } from "node:crypto";
import type { ChannelId } from "../../core/kernel/ids";
import { refused, type Result } from "../../core/kernel/refusal";
import type { Note } from "../../core/module/module";
import { hashToken } from "../secrets";
import type { Runner } from "./runner";

/** Fires the cue whose trigger address was called; before all channels are known nobody can say that there is none. */
export async function fireTrigger(
  runners: ReadonlyMap<ChannelId, Runner>,
  token: string,
  settled: boolean,
): Promise<Result<readonly Note[]>> {
  const hash = hashToken(token);
  for (const runner of runners.values()) {
    const trigger = runner.row.triggers.find((t) => t.tokenHash === hash);
    if (trigger !== undefined) return runner.requests.cue(trigger.cueId, "a trigger address", randomUUID(), "address");
  }
  return refused(settled ? "trigger/unknown" : "store/away");
}
