import { fileTypeFromBuffer } from "file-type";
import sharp from "sharp";
import { ok, refused, type Result } from "../../core/kernel/refusal";
import { cleanSvg, looksLikeSvg } from "./svg";
import { isTooHeavy, isTooLong } from "./svg-weight";

const side = 160;
const mostBytes = 2 * 1024 * 1024;
const mostPixels = 4_096 * 4_096;
const kinds = new Set(["image/png", "image/apng", "image/gif", "image/webp", "image/jpeg"]);

/** Somebody's picture as it is shown: square, still, small. What is no picture, or a huge one, is refused. */
export async function toFace(bytes: Buffer): Promise<Result<Buffer>> {
  if (bytes.length === 0 || bytes.length > mostBytes) return refused("picture/too-large", { mostKilobytes: mostBytes / 1024 });
  const type = await fileTypeFromBuffer(bytes);
  let source = bytes;
  if (type === undefined || !kinds.has(type.mime)) {
    const text = bytes.toString("utf8");
    if (!looksLikeSvg(text)) return refused("picture/unknown-kind");
    if (isTooLong(text)) return refused("picture/too-complex");
    const clean = cleanSvg(text);
    if (clean === null || isTooHeavy(clean)) return refused("picture/too-complex");
    source = Buffer.from(clean);
  }
  try {
    const opened = sharp(source, { limitInputPixels: mostPixels, failOn: "error", page: 0, pages: 1 });
    const { width = 0, height = 0 } = await opened.metadata();
    if (width < 1 || height < 1) return refused("picture/broken");
    const drawn =
      source === bytes
        ? opened
        : sharp(source, { limitInputPixels: mostPixels, density: Math.min(1_200, Math.max(1, (72 * side) / Math.min(width, height))) });
    return ok(await drawn.rotate().resize(side, side, { fit: "cover", position: "attention" }).webp({ quality: 86 }).toBuffer());
  } catch {
    return refused("picture/broken");
  }
}
