import type { Motion } from "./settings";

/** Each way of moving, named and told plainly. */
export const motionWords: Readonly<Record<Motion, { name: string; tells: string }>> = {
  drift: { name: "drift up", tells: "They rise like bubbles and sway." },
  pop: { name: "pop in place", tells: "They spring up where they are and sink away." },
  ricochet: { name: "ricochet", tells: "They fly and bounce off the edges." },
  rain: { name: "rain", tells: "They fall from the top and splash." },
  spout: { name: "spout", tells: "They shoot up from below and tumble back." },
  pile: { name: "pile up", tells: "They fall, and lie in heaps on the ground." },
  swirl: { name: "swirl", tells: "They circle outwards like glaze in a turning bowl." },
};
