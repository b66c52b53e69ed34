import { createRequire } from "node:module";

// Required, not imported: a module of JSON is imported in another way by each tool that builds this.
const names = createRequire(import.meta.url)("unicode-emoji-json/data-by-emoji.json") as Readonly<Record<string, { name: string }>>;

/** By the CLDR's short names. Keys come from what viewers write, so they are keys of a map; colours of skin make no other name. */
const byEmoji = new Map(Object.entries(names).map(([emoji, { name }]) => [emoji, name]));
const skin = /[\u{1F3FB}-\u{1F3FF}]/gu;
const plain = /\ufe0f/g;

export const emojiName = (emoji: string): string | null =>
  byEmoji.get(emoji) ??
  byEmoji.get(emoji.replace(skin, "")) ??
  byEmoji.get(`${emoji.replace(plain, "")}\ufe0f`) ??
  byEmoji.get(emoji.replace(plain, "")) ??
  null;
