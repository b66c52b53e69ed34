"use client";
import type { SystemStyleObject } from "@chakra-ui/react";
import { type KeyboardEvent, memo } from "react";
import type { Chip } from "../../../core/chips";
import { fold } from "../../../core/kernel/fold";
import type { Sprite, TalkItem } from "../../../core/wire/messages";
import { nextFocus } from "../../../ui/roving";
import { SpriteView } from "../../../ui/sprite-view";
import { initialsKept } from "./talk-faces";
import { wallClock } from "../../_frame/show";

/** `key` comes round: the held list remembers the height of every key it ever saw, and an evening has a million rows. */
export type Row = Readonly<{ item: TalkItem; chips: readonly Chip[]; key: number }>;

/**
 * How rows look, given once to the list. Two hundred rows a second are made and thrown away: a styled
 * component for each part of each cost more than everything else the booth does.
 */
export const rowStyles: SystemStyleObject = {
  "& .row": {
    display: "flex",
    gap: "2",
    px: "2",
    py: "3px",
    borderRadius: "6px",
    alignItems: "flex-start",
    fontSize: "15px",
    lineHeight: "1.35",
  },
  "& .row.event": { bg: "raised" },
  "& .face": {
    position: "relative",
    display: "inline-flex",
    alignItems: "center",
    justifyContent: "center",
    width: "19px",
    height: "19px",
    mr: "1.5",
    borderRadius: "full",
    overflow: "hidden",
    verticalAlign: "middle",
    color: "#FFF8E8",
    fontSize: "9.5px",
    fontWeight: "700",
    lineHeight: "1",
  },
  "& .face img": { position: "absolute", inset: "0", width: "100%", height: "100%" },
  "& .text": { flex: "1", minWidth: "0", overflowWrap: "anywhere" },
  "& .own": { color: "inkSoft" },
  "& .name": { fontWeight: "700", cursor: "pointer", _hover: { textDecoration: "underline" } },
  "& .emote": { display: "inline-block", verticalAlign: "middle" },
  "& .chips": { display: "flex", flexDirection: "column", alignItems: "flex-end", gap: "0.5", maxWidth: "132px", flexShrink: "0" },
  "& .chip": { cursor: "pointer", px: "1.5", borderRadius: "5px", fontSize: "14px", lineHeight: "1.45", maxWidth: "132px", truncate: true },
  "& .chip.good": { bg: "mossText/20", color: "mossText" },
  "& .chip.spent": { bg: "ochreText/20", color: "ochreText" },
  "& .chip.no": { bg: "brickText/12", color: "brickText" },
  "& .chip.said": { bg: "slateText/20", color: "slateText" },
};

type RowProps = Readonly<{
  row: Row;
  pictures: ReadonlyMap<string, Sprite>;
  onViewer: (viewer: { id: string; name: string }) => void;
  onChip: (chip: Chip) => void;
}>;

/** Left and right go from the name to what it caused, and back. */
function alongRow(event: KeyboardEvent<HTMLElement>): void {
  const members = [...event.currentTarget.querySelectorAll<HTMLElement>("button")];
  const next =
    event.key === "ArrowLeft" || event.key === "ArrowRight"
      ? nextFocus(event.key, members.indexOf(event.target as HTMLElement), members.length)
      : null;
  if (next === null) return;
  event.preventDefault();
  members[next]?.focus();
}

/** One line of the talk, with what it caused beside it. */
export const TalkRow = memo(function TalkRow({ row: { item, chips }, pictures, onViewer, onChip }: RowProps) {
  const { viewer } = item;
  const own = item.kind === "said" || item.kind === "unsaid";
  const event = !own && item.kind !== "message";
  return (
    <div className={event && viewer !== null ? "row event" : "row"} data-talk={item.kind} onKeyDown={alongRow}>
      <div className={own ? "text own" : "text"} title={wallClock(item.atMs)}>
        {viewer !== null && <RowFace name={item.name} />}
        {viewer !== null ? (
          <button type="button" className="name" tabIndex={-1} onClick={() => onViewer({ id: viewer.id, name: item.name })}>
            {item.name}
          </button>
        ) : (
          item.name !== "" && <b>{item.name}</b>
        )}{" "}
        {own && (item.kind === "unsaid" ? "could not say: " : "")}
        <Words text={item.text} pictures={pictures} plain={event} />
      </div>
      {chips.length > 0 && (
        <div className="chips">
          {chips.slice(0, 4).map((c) => (
            <button
              key={c.key}
              type="button"
              tabIndex={-1}
              className={`chip ${c.tone}`}
              title={c.words}
              onClick={() => onChip(c)}
              data-chip={c.note.refusal?.code ?? c.note.did}
            >
              {c.short}
            </button>
          ))}
        </div>
      )}
    </div>
  );
});

/** Initials; the picture is put over them when the talk has come to rest, by who knows where it is. */
function RowFace({ name }: Readonly<{ name: string }>) {
  const { letters, colour } = initialsKept(name);
  return (
    <span className="face" style={{ background: colour }} aria-hidden="true" data-face={name}>
      {letters}
    </span>
  );
}

/** A message with the channel's own emotes as pictures. */
function Words({ text, pictures, plain }: Readonly<{ text: string; pictures: ReadonlyMap<string, Sprite>; plain: boolean }>) {
  if (plain || pictures.size === 0) return text;
  const parts = text.split(/(\s+)/);
  if (!parts.some((p) => pictures.has(fold(p)))) return text;
  return parts.map((part, i) => {
    const sprite = part.length > 40 ? undefined : pictures.get(fold(part));
    if (sprite === undefined) return part;
    return (
      <span key={i} className="emote" role="img" aria-label={part} title={part}>
        <SpriteView sprite={sprite} size={22} />
      </span>
    );
  });
}
