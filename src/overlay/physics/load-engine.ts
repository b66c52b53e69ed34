import type { Engine } from "./engine";

/** Apart from what names the engine's types: only the worker loads it, and no page ships it a second time. */
export async function loadEngine(): Promise<Engine> {
  const { default: engine } = await import("@dimforge/rapier2d-compat");
  await engine.init();
  return engine;
}
