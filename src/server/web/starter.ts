import { readdir, readFile } from "node:fs/promises";
import { join } from "node:path";
import { fold } from "../../core/kernel/fold";
import type { ChannelId } from "../../core/kernel/ids";
import { ok, type Refusal, type Result } from "../../core/kernel/refusal";
import type { WebServices } from "../composition/web";
import { drawnEmotes } from "../pictures/frames";
import { addEmote } from "./emotes";
import { inMemory } from "./brought";
import { addProps } from "./props";

/** What ships with Izzam, drawn and sounded for it; every process of an installation works in its folder. */
const folder = join(process.cwd(), "demo");

/**
 * A channel that begins with nothing gets the pictures, or the pictures and sounds, that Izzam comes with. What is
 * there already, or has a word that is taken, is passed over, so that asking twice adds nothing twice. When nothing
 * could be added for another reason, that reason is the answer.
 */
export async function addStarter(web: WebServices, channel: ChannelId, what: "emotes" | "props"): Promise<Result<{ added: number }>> {
  let added = 0;
  let why: Refusal | null = null;
  if (what === "emotes") {
    const taken = new Set((await web.store.emotes.emotes(channel)).map((e) => fold(e.word)));
    for (const { word, bytes } of await drawnEmotes(join(folder, "emotes"))) {
      if (taken.has(fold(word))) continue;
      const done = await addEmote(web, channel, await bytes(), word);
      if (done.ok) added += 1;
      else if (done.refusal.code !== "emote/word-taken" && done.refusal.code !== "emote/same-picture") why = done.refusal;
    }
  } else
    for (const file of (await readdir(join(folder, "props"))).sort()) {
      const done = await addProps(web, channel, inMemory(await readFile(join(folder, "props", file)), file));
      if (done.ok) added += done.value.filter((a) => a.ok).length;
      else why = done.refusal;
    }
  return added === 0 && why !== null ? { ok: false, refusal: why } : ok({ added });
}
