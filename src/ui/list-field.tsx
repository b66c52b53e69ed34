"use client";
import { chakra } from "@chakra-ui/react";
import { type ListShape, listFrom, listText } from "../core/words/list";
import { inputLook } from "./input-look";

type Props = Readonly<{
  /** Left out where a label stands around it. */
  label?: string;
  list: readonly string[];
  shape: ListShape;
  placeholder?: string;
  width?: string;
  /** So many lines high; one when left out. */
  rows?: number;
  /** Chat words and the like. */
  mono?: boolean;
  /** The cursor is in it at once, with all of it chosen. */
  fresh?: boolean;
  onSet: (list: string[]) => void;
}>;

/** Several words in one field. They are taken when one leaves it, so that half a word is never saved. */
export function ListField({ label, list, shape, placeholder, width, rows, mono = false, fresh = false, onSet }: Props) {
  const text = listText(list, shape);
  const field = {
    ...inputLook,
    defaultValue: text,
    ...(label === undefined ? {} : { "aria-label": label }),
    ...(placeholder === undefined ? {} : { placeholder }),
    ...(width === undefined ? {} : { width }),
    ...(mono ? { fontFamily: "mono" } : {}),
    ...(fresh ? { autoFocus: true } : {}),
  };
  const take = (given: string): void => {
    const next = listFrom(given, shape);
    if (listText(next, shape) !== text) onSet(next);
  };
  // By its text as key, so that what was changed elsewhere is shown anew.
  return rows === undefined ? (
    <chakra.input key={text} {...field} onFocus={(e) => fresh && e.currentTarget.select()} onBlur={(e) => take(e.currentTarget.value)} />
  ) : (
    <chakra.textarea key={text} {...field} py="1.5" rows={rows} onBlur={(e) => take(e.currentTarget.value)} />
  );
}
