import { createJSONRPCErrorResponse, JSONRPCClient, JSONRPCErrorException } from "json-rpc-2.0";
import WebSocket from "ws";
import type { z } from "zod";
import { ok, refused, type Result } from "../../../core/kernel/refusal";
import { cut, jsonOrNull, wellFormed } from "../../../core/kernel/text";
import { type ScenesTold, studioErrors, studioMethods, studioNotifications, studioProtocol } from "../../../core/studio/protocol";
import type { Studio, StudioStanding } from "../../ports/studio";

const answerMs = 4_000;
const connectMs = 5_000;
const firstWaitMs = 1_000;
const longestWaitMs = 30_000;
const beatMs = 10_000;
const mostBytes = 256 * 1024;

/** A studio by JSON-RPC 2.0 over WebSocket: comes back by itself, a little later each time. */
export function rpcStudio(
  { address, secret }: Readonly<{ address: string; secret: string }>,
  onStanding: (standing: StudioStanding) => void,
  now: () => number = Date.now,
): Studio {
  let stopped = false;
  let waitMs = firstWaitMs;
  let timer: NodeJS.Timeout | null = null;
  let line: Line | null = null;
  let standing: StudioStanding = { state: "connecting", sinceMs: now(), lastError: "", name: "", scenes: [], current: null };
  const tell = (part: Partial<StudioStanding>): void => {
    const state = part.state ?? standing.state;
    standing = { ...standing, sinceMs: state === standing.state ? standing.sinceMs : now(), ...part };
    onStanding(standing);
  };
  const open = (): void => {
    if (stopped) return;
    tell({ state: "connecting" });
    const made = openLine(address, {
      onScenes: (told) => tell(tidy(told)),
      onEnd: (why) => {
        if (line !== made) return;
        line = null;
        if (stopped) return;
        tell({ state: "waiting", lastError: why });
        // Not all at the same moment, and later each time.
        timer = setTimeout(open, waitMs * (0.5 + Math.random() / 2));
        waitMs = Math.min(longestWaitMs, waitMs * 2);
      },
    });
    line = made;
    void (async () => {
      try {
        await made.opened;
        const { name } = await made.call("hello", { protocol: studioProtocol, secret });
        const told = await made.call("scenes", {});
        waitMs = firstWaitMs;
        tell({ state: "connected", lastError: "", name: tidyName(name), ...tidy(told) });
      } catch (error) {
        made.end(inWords(error));
      }
    })();
  };
  return {
    start: open,
    stop: () => {
      stopped = true;
      if (timer !== null) clearTimeout(timer);
      line?.end("");
    },
    standing: () => standing,
    go: async (scene): Promise<Result<null>> => {
      if (line === null || standing.state !== "connected") return refused("studio/away");
      try {
        const { current } = await line.call("go", { scene });
        tell({ current });
        return current === scene ? ok(null) : refused("studio/refused", { why: `it went to “${cut(current, 80)}”` });
      } catch (error) {
        return refused("studio/refused", { why: inWords(error) });
      }
    },
  };
}

const tidyName = (text: string): string => cut(wellFormed(text), 80).trim();
/** Names that can be stored, each once. */
const tidy = ({ scenes, current }: ScenesTold): Pick<StudioStanding, "scenes" | "current"> => ({
  scenes: [...new Set(scenes.map(tidyName).filter((name) => name !== ""))],
  current: current === null ? null : tidyName(current),
});
function inWords(error: unknown): string {
  if (error instanceof JSONRPCErrorException) {
    if (error.code === studioErrors.notAllowed.code) return "it does not take the secret";
    if (error.code === studioErrors.noSuchScene.code) return "it has no such scene";
    return cut(wellFormed(error.message), 120);
  }
  const { code = "", message = "" } = error as { code?: string; message?: string };
  if (code === "ECONNREFUSED") return "nothing listens at its address";
  if (code === "ENOTFOUND" || code === "EAI_AGAIN") return "its address leads nowhere";
  return message === "" ? "it does not answer" : cut(wellFormed(message), 120);
}

type Methods = typeof studioMethods;
type Line = Readonly<{
  opened: Promise<void>;
  call: <M extends keyof Methods>(method: M, params: z.input<Methods[M]["params"]>) => Promise<z.output<Methods[M]["result"]>>;
  end: (why: string) => void;
}>;
/** One connection. Whatever goes wrong with it ends it, once, with why. */
function openLine(address: string, on: Readonly<{ onScenes: (told: ScenesTold) => void; onEnd: (why: string) => void }>): Line {
  let socket: WebSocket;
  let over = false;
  let heard = true;
  let beat: NodeJS.Timeout | null = null;
  const client = new JSONRPCClient((request: unknown) => {
    if (socket.readyState !== WebSocket.OPEN) throw new Error("it is not connected");
    socket.send(JSON.stringify(request));
  });
  const end = (why: string): void => {
    if (over) return;
    over = true;
    if (beat !== null) clearInterval(beat);
    client.rejectAllPendingRequests(why === "" ? "the connection ended" : why);
    socket.terminate();
    on.onEnd(why);
  };
  try {
    socket = new WebSocket(address, { handshakeTimeout: connectMs, maxPayload: mostBytes, followRedirects: false });
  } catch (error) {
    const why = inWords(error);
    queueMicrotask(() => on.onEnd(why));
    const no = Promise.reject(new Error(why));
    no.catch(() => undefined);
    return { opened: no, call: () => Promise.reject(new Error(why)), end: () => undefined };
  }
  const opened = new Promise<void>((resolve, reject) => {
    socket.once("open", () => resolve());
    socket.once("close", () => reject(new Error("it closed the connection")));
    socket.once("error", (error) => reject(error));
  });
  opened.catch(() => undefined);
  socket.on("error", (error) => end(inWords(error)));
  socket.on("close", () => end("it closed the connection"));
  socket.on("pong", () => (heard = true));
  socket.on("message", (data, binary) => {
    heard = true;
    const said: unknown = binary ? null : jsonOrNull(String(data));
    if (typeof said !== "object" || said === null || Array.isArray(said)) return end("it says something that is no JSON-RPC");
    if ("method" in said) {
      const told = said.method === "changed" && "params" in said ? studioNotifications.changed.params.safeParse(said.params) : null;
      if (told?.success === true) on.onScenes(told.data);
      return;
    }
    if ("id" in said && (typeof said.id === "number" || typeof said.id === "string"))
      // Read by its schema where it is asked for.
      client.receive(said as Parameters<typeof client.receive>[0]);
  });
  beat = setInterval(() => {
    if (!heard) return end("it does not answer any more");
    heard = false;
    if (socket.readyState === WebSocket.OPEN) socket.ping();
  }, beatMs);
  beat.unref();
  const call: Line["call"] = async (method, params) => {
    const answer: unknown = await client
      .timeout(answerMs, (id) => createJSONRPCErrorResponse(id, -32_000, "it did not answer in time"))
      .request(method, params);
    const read = studioMethods[method].result.safeParse(answer);
    if (!read.success) throw new Error(`its answer to “${method}” has another shape`);
    // The schema of this very method.
    return read.data as z.output<Methods[typeof method]["result"]>;
  };
  return { opened, call, end };
}
