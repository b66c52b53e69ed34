import { z } from "zod";
import { ok, refused, type Result } from "../../core/kernel/refusal";
import type { ChannelId } from "../../core/kernel/ids";
import { sha256 } from "../hash";
import { newToken } from "../secrets";
import type { WebServices } from "../composition/web";

/** A chat word: what chatters type, so without spaces and not what a chat command would start with. */
export const emoteWordSchema = z
  .string()
  .trim()
  .min(2, "A word has at least 2 characters.")
  .max(40, "A word has at most 40 characters.")
  .regex(/^[^\s!/][^\s]*$/u, "A word has no spaces and does not begin with ! or /.")
  .regex(/[\p{L}\p{N}]/u, "A word has at least one letter or digit.");

export async function addEmote(web: WebServices, channel: ChannelId, bytes: Buffer, word: string): Promise<Result<{ id: string }>> {
  const sheet = await web.decoder.picture(bytes);
  if (!sheet.ok) return sheet;
  const { webp, kind, sourceSha, pixelsSha, frames, columns, frameWidth, frameHeight, frameMs } = sheet.value;
  const id = newToken();
  const added = await web.store.emotes.add(
    channel,
    {
      id,
      word,
      kind,
      sourceSha,
      pixelsSha,
      frames,
      columns,
      frameWidth,
      frameHeight,
      frameMs,
      sheet: { sha: sha256(webp), mime: "image/webp", bytes: webp },
    },
    web.clock.now(),
  );
  if (!added.ok) return added;
  await web.engine.reload(channel);
  return ok({ id });
}

export async function renameEmote(web: WebServices, channel: ChannelId, id: string, word: string): Promise<Result<null>> {
  const done = await web.store.emotes.rename(channel, id, word);
  if (done.ok) await web.engine.reload(channel);
  return done;
}

export async function removeEmote(web: WebServices, channel: ChannelId, id: string): Promise<Result<null>> {
  if (!(await web.store.emotes.remove(channel, id, web.clock.now()))) return refused("emote/unknown");
  await web.engine.reload(channel);
  return ok(null);
}

export async function restoreEmote(web: WebServices, channel: ChannelId, id: string): Promise<Result<null>> {
  const done = await web.store.emotes.restore(channel, id);
  if (done.ok) await web.engine.reload(channel);
  return done;
}
