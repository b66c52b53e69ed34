import { pictureFactsSchema } from "../../core/props/settings";
import type { Sprite } from "../../core/wire/messages";
import type { PropRow } from "../ports/prop-store";

/** Picture props as the overlay draws them. */
export const pictureSprites = (props: readonly PropRow[]): readonly Sprite[] =>
  props.flatMap((prop) => {
    const facts = pictureFactsSchema.safeParse(prop.facts);
    if (prop.kind !== "picture" || !facts.success) return [];
    const { frames, columns, frameWidth, frameHeight, frameMs, figure } = facts.data;
    const sheet = { frames, columns, frameWidth, frameHeight, frameMs };
    return [{ key: `prop:${prop.id}`, word: prop.name.slice(0, 64), url: prop.url, ...sheet, ...(figure === undefined ? {} : { figure }) }];
  });
