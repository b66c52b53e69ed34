import type { IncomingMessage } from "node:http";
import type { Duplex } from "node:stream";
import { JSONRPCErrorException, JSONRPCServer } from "json-rpc-2.0";
import { type WebSocket, WebSocketServer } from "ws";
import { type ScenesTold, studioErrors, studioMethods } from "../core/studio/protocol";

/** The scenes of the rig's made-up studio. */
export const rigScenes = ["Throwing", "Hands", "Kiln door", "Glaze bench", "Tea break", "Shelf"] as const;
/** How it behaves: well, two seconds late, refusing to switch, or as if it were not there. */
export const studioManners = ["good", "slow", "refuses", "vanished"] as const;
export type StudioManner = (typeof studioManners)[number];
const slowMs = 2_000;

/**
 * A studio for practice: it speaks the published protocol, has scenes and a program picture, can be switched by hand, and
 * behaves badly on demand.
 */
export class PracticeStudio {
  private readonly sockets = new WebSocketServer({ noServer: true, maxPayload: 64 * 1024 });
  private readonly rpc = new JSONRPCServer<WebSocket>({ errorListener: () => undefined });
  private readonly known = new Set<WebSocket>();
  manner: StudioManner = "good";
  current: string = rigScenes[0];
  scenes: readonly string[] = rigScenes;
  /** How often it was asked to switch. */
  asked = 0;

  constructor(private readonly secret = "") {
    const { hello, go } = studioMethods;
    this.rpc.addMethod("hello", (given, socket) => {
      const read = hello.params.safeParse(given);
      if (!read.success) throw new JSONRPCErrorException("these parameters have another shape", -32_602);
      if (read.data.secret !== this.secret) throw fault("notAllowed");
      this.known.add(socket);
      return { name: "Saltmarsh studio" };
    });
    this.rpc.addMethod("scenes", (_, socket) => {
      if (!this.known.has(socket)) throw fault("notAllowed");
      return this.told();
    });
    this.rpc.addMethod("go", (given, socket) => {
      if (!this.known.has(socket)) throw fault("notAllowed");
      const read = go.params.safeParse(given);
      if (!read.success) throw new JSONRPCErrorException("these parameters have another shape", -32_602);
      this.asked += 1;
      if (this.manner === "refuses") throw fault("refused");
      if (!this.scenes.includes(read.data.scene)) throw fault("noSuchScene");
      this.show(read.data.scene);
      return { current: this.current };
    });
  }

  told(): ScenesTold {
    return { scenes: [...this.scenes], current: this.current };
  }
  get connected(): number {
    return this.known.size;
  }

  /** By hand, or asked to: everybody who watches is told. */
  show(scene: string): void {
    if (scene === this.current || !this.scenes.includes(scene)) return;
    this.current = scene;
    this.tell();
  }
  behave(manner: StudioManner): void {
    this.manner = manner;
    if (manner === "vanished") for (const socket of this.sockets.clients) socket.terminate();
  }
  have(scenes: readonly string[]): void {
    this.scenes = scenes;
    this.tell();
  }
  private tell(): void {
    const text = JSON.stringify({ jsonrpc: "2.0", method: "changed", params: this.told() });
    for (const socket of this.known) socket.send(text);
  }

  upgrade(req: IncomingMessage, socket: Duplex, head: Buffer): void {
    if (this.manner === "vanished") return void socket.destroy();
    this.sockets.handleUpgrade(req, socket, head, (ws) => this.join(ws));
  }
  private join(ws: WebSocket): void {
    ws.on("error", () => undefined);
    ws.on("close", () => this.known.delete(ws));
    ws.on("message", (data) => {
      void (async () => {
        if (this.manner === "slow") await new Promise((resolve) => setTimeout(resolve, slowMs));
        const answer = await this.rpc.receiveJSON(String(data), ws);
        if (answer !== null && ws.readyState === ws.OPEN) ws.send(JSON.stringify(answer));
      })();
    });
  }
  close(): void {
    for (const socket of this.sockets.clients) socket.terminate();
    this.sockets.close();
  }
}
const fault = (which: keyof typeof studioErrors): JSONRPCErrorException =>
  new JSONRPCErrorException(studioErrors[which].message, studioErrors[which].code);
