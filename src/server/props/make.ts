import { ok, type Result } from "../../core/kernel/refusal";
import { pictureDefaults, pictureSettingsSchema, soundDefaults, soundSettingsSchema } from "../../core/props/settings";
import { fileTypeFromBuffer } from "file-type";
import type { MadeProp } from "./made";
import { isZip } from "./zip";
import { makeFigure } from "./figure";
import { sha256 } from "../hash";
import { propUse, toSheet } from "../pictures/sheet";
import { toSound } from "../sounds/sound";

/** What it is is told by its content, never by its name. */
export async function makeProp(
  bytes: Buffer,
  kept?: Readonly<{ kind: "picture" | "sound"; settings: unknown }>,
): Promise<Result<MadeProp>> {
  if (isZip(bytes)) return makeFigure(bytes);
  const mime = (await fileTypeFromBuffer(bytes))?.mime ?? "";
  const kind = kept?.kind ?? (mime.startsWith("audio/") ? "sound" : "picture");
  if (kind === "sound") {
    const settings = soundSettingsSchema.safeParse(kept?.settings ?? soundDefaults);
    const use = settings.success ? settings.data : soundDefaults;
    const sound = await toSound(bytes, use);
    if (!sound.ok) return sound;
    const { ogg, facts, kind: sourceKind } = sound.value;
    return ok({ kind, sourceKind, made: { sha: sha256(ogg), mime: "audio/ogg", bytes: ogg }, settings: use, facts });
  }
  const settings = pictureSettingsSchema.safeParse(kept?.settings ?? pictureDefaults);
  const use = settings.success ? settings.data : pictureDefaults;
  const sheet = await toSheet(bytes, propUse(use));
  if (!sheet.ok) return sheet;
  const { webp, kind: sourceKind, frames, columns, frameWidth, frameHeight, frameMs, sourceWidth, sourceHeight } = sheet.value;
  return ok({
    kind,
    sourceKind,
    made: { sha: sha256(webp), mime: "image/webp", bytes: webp },
    settings: use,
    facts: { frames, columns, frameWidth, frameHeight, frameMs, sourceWidth, sourceHeight },
  });
}
