import { refused, type Result } from "../../../core/kernel/refusal";
import type { EngineLink } from "../../ports/engine-link";

/** Over loopback HTTP, with the key both processes were given at start. */
export function httpEngineLink(port: number, key: string): EngineLink {
  const ask = async (name: string, body: unknown): Promise<Result<never>> => {
    try {
      const response = await fetch(`http://127.0.0.1:${port}/_engine/${name}`, {
        method: "POST",
        headers: { authorization: `Bearer ${key}`, "content-type": "application/json" },
        body: JSON.stringify(body),
        signal: AbortSignal.timeout(8_000),
      });
      if (!response.ok) return refused("engine/away");
      // Our own engine of the same build answers: its shape is known.
      return (await response.json()) as Result<never>;
    } catch {
      return refused("engine/away");
    }
  };
  return {
    // What is missed here the engine sees by the channel's revision within two seconds.
    reload: async (channel) => void (await ask("reload", { channel })),
    // What is missed here the engine finds by itself at its next look.
    media: async (channel) => void (await ask("media", { channel })),
    refresh: async (channel) => void (await ask("refresh", { channel })),
    forget: (channel, viewer) => ask("forget", { channel, viewer }),
    changed: async (channel, what) => void (await ask("changed", { channel, ...what })),
    recheck: async () => void (await ask("recheck", {})),
    leave: (channel, token) => ask("leave", { channel, token }),
    renew: (channel, token, after) => ask("renew", { channel, token, after }),
    cue: (channel, cue, by, id, via, house) => ask("cue", { channel, cue, by, id, via, house }),
    queue: (channel, what, queue) => ask("queue", { channel, do: what, queue }),
    held: (channel, what, alert) => ask("held", { channel, do: what, alert }),
    say: (channel, text, by) => ask("say", { channel, text, by }),
    hear: (channel, voice) => ask("hear", { channel, voice }),
    voice: (channel, page) => ask("voice", { channel, page }),
    tone: (channel, page) => ask("tone", { channel, page }),
    shop: (channel, token) => ask("shop", { channel, token }),
    code: (channel, token) => ask("code", { channel, token }),
    act: (channel, token, request) => ask("act", { channel, token, ...request }),
    purchase: (channel, token, request) => ask("purchase", { channel, token, ...request }),
    rehearse: (channel, asked) => ask("rehearse", { channel, ...asked }),
    rehearsal: {
      known: (channel, id) => ask("rehearsal", { channel, id, ask: { do: "known" } }),
      report: (channel, id) => ask("rehearsal", { channel, id, ask: { do: "report" } }),
      fight: (channel, id, at) => ask("rehearsal", { channel, id, ask: { do: "fight", ...at } }),
      marks: (channel, id) => ask("rehearsal", { channel, id, ask: { do: "marks" } }),
      steer: (channel, id, steer) => ask("rehearsal", { channel, id, ask: { do: "steer", steer } }),
      give: (channel, id, given) => ask("rehearsal", { channel, id, ask: { do: "give", given } }),
    },
    refusedEvents: (channel) => ask("refused", { channel }),
    command: (channel, game, by, id, command, house) => ask("command", { channel, game, by, id, command, house }),
  };
}
