import type { SceneKit } from "../overlay/scene";
import type { LoadedSprite } from "../overlay/sprites";

/** For scenes that ask for neither a layer of their own nor a pile: who asks after all is a mistake. */
export const bareKit: Pick<SceneKit, "layer" | "desk" | "frames" | "film"> = {
  film: () => {
    throw new Error("no film here");
  },
  frames: () => [],
  layer: () => {
    throw new Error("no layer here");
  },
  desk: () => {
    throw new Error("no desk here");
  },
};

const picture: LoadedSprite["picture"] = { width: 1, height: 1 } as unknown as NonNullable<LoadedSprite["picture"]>;

/** A book whose pictures are all there: `wide` is twice as wide as high, `moving` has four frames. */
export function spriteBook(): SceneKit["sprites"] {
  const keys: string[] = [];
  const of = (id: number): LoadedSprite => {
    const key = keys[id] ?? "";
    const moving = key === "moving";
    return {
      id,
      key,
      picture: key === "missing" ? null : picture,
      frames: moving ? 4 : 1,
      columns: 2,
      frameWidth: key === "wide" ? 200 : 100,
      frameHeight: 100,
      frameMs: moving ? 100 : 0,
      usedAtMs: 0,
      again: 0,
    };
  };
  const made = {
    id: (key: string) => (keys.includes(key) ? keys.indexOf(key) : keys.push(key) - 1),
    get: of,
    known: () => ["pot"],
  };
  return made as unknown as SceneKit["sprites"];
}
