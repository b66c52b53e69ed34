import type { SceneKit } from "../overlay/scene";

/** For scenes that ask for neither a layer of their own nor a pile: who asks after all is a mistake. */
export const bareKit: Pick<SceneKit, "layer" | "desk" | "frames"> = {
  frames: () => [],
  layer: () => {
    throw new Error("no layer here");
  },
  desk: () => {
    throw new Error("no desk here");
  },
};
