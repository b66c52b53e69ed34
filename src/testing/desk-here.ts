import type { Desk } from "../overlay/physics/client";
import { type FromDesk, PileDesk, type ToDesk } from "../overlay/physics/desk";
import type { Engine } from "../overlay/physics/engine";

/** The real desk without a worker: it answers within the call. `die` and `mute` are what workers do. */
export function deskHere(engine: Engine): Desk & { die: () => void; mute: boolean; told: ToDesk["t"][] } {
  const own = new PileDesk(engine, () => 0);
  const desk = {
    onmessage: null as Desk["onmessage"],
    onerror: null as Desk["onerror"],
    mute: false,
    told: [] as ToDesk["t"][],
    postMessage: (said: ToDesk): void => {
      desk.told.push(said.t);
      if (desk.mute) return;
      const answer: FromDesk | null = own.take(said);
      if (answer !== null) desk.onmessage?.({ data: answer } as MessageEvent<FromDesk>);
      else if (said.t === "begin") desk.onmessage?.({ data: { t: "ready" } } as MessageEvent<FromDesk>);
    },
    terminate: (): void => undefined,
    die: (): void => desk.onerror?.({} as ErrorEvent),
  };
  return desk as unknown as Desk & typeof desk;
}
