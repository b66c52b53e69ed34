import { type FromDesk, PileDesk, type ToDesk } from "./desk";
import { loadEngine } from "./load-engine";

/** The pile is reckoned here, so that no page ever waits for it. */
declare const self: {
  onmessage: ((e: MessageEvent<ToDesk>) => void) | null;
  postMessage: (said: FromDesk, transfer?: readonly ArrayBufferLike[]) => void;
};
const early: ToDesk[] = [];
let desk: PileDesk | null = null;

const answer = (said: FromDesk | null): void => {
  if (said === null) return;
  self.postMessage(said, said.t === "rows" ? [said.buffer, ...(said.bed === null ? [] : [said.bed.buffer])] : []);
};
self.onmessage = (e): void => {
  if (desk === null) early.push(e.data);
  else answer(desk.take(e.data));
};
void loadEngine().then((engine) => {
  desk = new PileDesk(engine, () => performance.now());
  self.postMessage({ t: "ready" } satisfies FromDesk);
  for (const said of early.splice(0)) answer(desk.take(said));
});
