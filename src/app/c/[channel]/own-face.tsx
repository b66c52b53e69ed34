import { useState } from "react";
import { initialsOf } from "../../../core/pictures/initials";
import type { OwnInGame } from "../../../core/wire/to-viewer";

/** One's own face as the channel's pictures have it: one's picture, or initials where there is none or it is hidden. */
export function OwnFace({ name, url, games }: Readonly<{ name: string; url: string; games: readonly OwnInGame[] }>) {
  const [none, setNone] = useState("");
  const { letters, colour } = initialsOf(name);
  const hidden = games.some((g) => g.mine["face"] === false);
  return (
    <span
      className="face"
      style={{ background: colour }}
      aria-hidden="true"
      data-face={hidden || url === "" || none === url ? "initials" : "picture"}
    >
      {letters}
      {!hidden && url !== "" && none !== url && <img src={url} alt="" onError={() => setNone(url)} />}
    </span>
  );
}
