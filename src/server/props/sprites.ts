import { pictureFactsSchema } from "../../core/props/settings";
import { flashingOf, posterOf, type VideoFacts, videoFactsSchema, videoSettingsSchema } from "../../core/props/video";
import type { Sprite } from "../../core/wire/messages";
import type { PropRow } from "../ports/prop-store";

/** Picture props as the overlay draws them. */
export const pictureSprites = (props: readonly PropRow[]): readonly Sprite[] =>
  props.flatMap((prop) => {
    const video = prop.kind === "video" ? videoFactsSchema.safeParse(prop.facts) : null;
    if (video?.success === true) return [videoSprite(prop, video.data)];
    const facts = pictureFactsSchema.safeParse(prop.facts);
    if (prop.kind !== "picture" || !facts.success) return [];
    const { frames, columns, frameWidth, frameHeight, frameMs, figure } = facts.data;
    const sheet = { frames, columns, frameWidth, frameHeight, frameMs };
    return [{ key: `prop:${prop.id}`, word: prop.name.slice(0, 64), url: prop.url, ...sheet, ...(figure === undefined ? {} : { figure }) }];
  });

/** Its poster, and what moves in its place where it can. */
export function videoSprite(prop: Readonly<{ id: string; name: string; settings: unknown }>, facts: VideoFacts): Sprite {
  const settings = videoSettingsSchema.safeParse(prop.settings);
  const { width, height } = posterOf(facts);
  return {
    key: `prop:${prop.id}`,
    word: prop.name.slice(0, 64),
    url: facts.poster,
    frames: 1,
    columns: 1,
    frameWidth: width,
    frameHeight: height,
    frameMs: 0,
    video: {
      url: facts.url,
      ms: facts.ms,
      audible: facts.audible,
      volume: (settings.success ? settings.data.volume : 100) / 100,
      flashing: flashingOf(facts),
    },
  };
}
