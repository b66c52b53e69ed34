import sharp from "sharp";
import { ok, refused, type Result } from "../../core/kernel/refusal";
import { cut, wellFormed } from "../../core/kernel/text";
import {
  type FigureFacts,
  type FigureManifest,
  figureManifestSchema,
  type FigureState,
  type PartName,
  partNames,
  type Run,
} from "../../core/props/figure";
import { pictureDefaults, pictureSettingsSchema } from "../../core/props/settings";
import { pictureRefusalInWords } from "../pictures/words";
import { sha256 } from "../hash";
import { compose, type Frames, mostSheetPixels, propUse, toFrames } from "../pictures/sheet";
import { cleanSvg } from "../pictures/svg";
import { svgParts } from "../pictures/svg-parts";
import { isTooHeavy, isTooLong } from "../pictures/svg-weight";
import type { MadeProp } from "./made";
import { filesInZip } from "./zip";

const pictures = /\.(png|svg|gif|webp)$/i;
const onlyManifest = /^figure\.json$/;
const mostManifest = 64 * 1024;
const mostEach = 8 * 1024 * 1024;
const mostFrames = 240;
/** Sharp on a picture of 1080 lines, where a figure takes half of them. */
const frameSide = 512;
const partSide = 900;

type Cells = Readonly<{ raw: readonly Buffer[]; width: number; height: number; facts: FigureFacts; source: readonly [number, number] }>;

/**
 * A figure from its ZIP file: one sheet of all its frames, or of all its parts. Refused: no manifest in it, one that can't
 * be read, or that tells of files, frames or parts that are not there.
 */
export async function makeFigure(zip: Buffer): Promise<Result<MadeProp>> {
  // The manifest alone first: a ZIP of anything else is not unpacked for nothing.
  const told = await filesInZip(zip, mostEach, onlyManifest);
  if (!told.ok) return told.refusal.code === "prop/nothing-in-zip" ? refused("figure/no-manifest") : told;
  const [text] = told.value;
  if (text === undefined) return refused("figure/no-manifest");
  const manifest = readManifest(text.bytes);
  if (!manifest.ok) return manifest;
  const found = await filesInZip(zip, mostEach, pictures);
  if (!found.ok && found.refusal.code !== "prop/nothing-in-zip") return found;
  const files = new Map((found.ok ? found.value : []).map((f) => [f.name, f.bytes]));
  const cells = "drawing" in manifest.value ? await partsOf(manifest.value, files) : await statesOf(manifest.value, files);
  if (!cells.ok) return cells;
  const { raw, width, height, facts, source } = cells.value;
  const { webp, columns } = await compose(raw, width, height);
  const rest = facts.states.rest;
  return ok({
    kind: "picture",
    sourceKind: "figure",
    made: { sha: sha256(webp), mime: "image/webp", bytes: webp },
    settings: pictureDefaults,
    facts: {
      frames: rest?.frames ?? 1,
      columns,
      frameWidth: width,
      frameHeight: height,
      frameMs: rest?.frameMs ?? 0,
      sourceWidth: source[0],
      sourceHeight: source[1],
      figure: facts,
    },
    name: nameOf(manifest.value.name),
  });
}

/** Letters that can be stored and read; what turns the direction of a line is no part of a name. */
const nameOf = (given: string): string =>
  cut(wellFormed(given), 80)
    .replace(/[\p{Cc}\p{Cf}\uFFFD]/gu, "")
    .trim() || "a figure";

function readManifest(bytes: Buffer): Result<FigureManifest> {
  const bad = (why: string, where = ""): Result<never> => refused("figure/bad-manifest", { why: cut(why, 200), where: cut(where, 80) });
  if (bytes.length > mostManifest) return bad("it is longer than 64 kB");
  let given: unknown;
  try {
    given = JSON.parse(bytes.toString("utf8").replace(/^\uFEFF/, ""));
  } catch {
    return bad("it is no JSON");
  }
  if (typeof given !== "object" || given === null) return bad("it is no JSON object");
  const parsed = figureManifestSchema.safeParse(given);
  if (parsed.success) return ok(parsed.data);
  const [issue] = parsed.error.issues;
  // Of the two shapes, that which it means to have.
  const inner = issue?.code === "invalid_union" ? issue.errors[Object.hasOwn(given, "drawing") ? 1 : 0]?.[0] : issue;
  const path = inner?.path.map(String).join(" → ") ?? "";
  return bad(inner?.message ?? "it has another shape", path === "" ? "" : `${path}: `);
}

const fileOf = (files: ReadonlyMap<string, Buffer>, file: string): Result<Buffer> => {
  const bytes = files.get(file);
  return bytes === undefined ? refused("figure/no-file", { file: cut(file, 80) }) : ok(bytes);
};

/** Frame by frame: all states on cells of one size, standing on the same ground, as large beside each other as they came. */
async function statesOf(
  manifest: Extract<FigureManifest, { states: unknown }>,
  files: ReadonlyMap<string, Buffer>,
): Promise<Result<Cells>> {
  // Rest comes first: it is what is shown wherever the figure stands for a picture.
  const entries = Object.entries(manifest.states).sort(([a], [b]) => Number(b === "rest") - Number(a === "rest"));
  const states: { state: FigureState; cut: Frames; loop: boolean; size: readonly [number, number] }[] = [];
  let total = 0;
  for (const [name, of] of entries) {
    const file = fileOf(files, of.picture);
    if (!file.ok) return file;
    const grid = { columns: of.columns, rows: of.rows, frames: of.frames ?? of.columns * of.rows };
    const settings = pictureSettingsSchema.safeParse({ ...pictureDefaults, grid, frameMs: of.frameMs });
    if (!settings.success) return refused("figure/bad-manifest", { why: settings.error.issues[0]?.message ?? "", where: `${name}: ` });
    const use = { ...propUse(settings.data), stillSide: frameSide, animatedSide: frameSide };
    const cutUp = await toFrames(file.value, use);
    if (!cutUp.ok) return refused("figure/bad-file", { file: cut(of.picture, 80), why: pictureRefusalInWords(cutUp.refusal.code) });
    total += cutUp.value.frames;
    if (total > mostFrames) return refused("figure/too-many-frames", { most: mostFrames, frames: total });
    const { sourceWidth, sourceHeight } = cutUp.value;
    const size = [sourceWidth / of.columns, sourceHeight / of.rows] as const;
    // The schema knows no other names.
    states.push({ state: name as FigureState, cut: cutUp.value, loop: of.loop, size });
  }
  const wide = Math.max(...states.map((s) => s.size[0]));
  const high = Math.max(...states.map((s) => s.size[1]));
  const room = Math.sqrt(mostSheetPixels / total);
  const scale = Math.min(room / Math.max(wide, high), ...states.map((s) => s.cut.frameWidth / s.size[0]));
  const width = Math.max(1, Math.round(wide * scale));
  const height = Math.max(1, Math.round(high * scale));
  const raw: Buffer[] = [];
  const runs: Partial<Record<FigureState, Run>> = {};
  for (const { state, cut: of, loop, size } of states) {
    runs[state] = { first: raw.length, frames: of.frames, frameMs: of.frameMs, loop };
    const tile = { width: of.frameWidth, height: of.frameHeight, channels: 4 as const };
    const own = {
      width: Math.max(1, Math.min(width, Math.round(size[0] * scale))),
      height: Math.max(1, Math.min(height, Math.round(size[1] * scale))),
    };
    const left = Math.floor((width - own.width) / 2);
    const clear = { r: 0, g: 0, b: 0, alpha: 0 };
    for (const frame of of.raw)
      raw.push(
        await sharp(frame, { raw: tile })
          .resize(own.width, own.height, { fit: "fill" })
          .extend({ top: height - own.height, bottom: 0, left, right: width - own.width - left, background: clear })
          .raw()
          .toBuffer(),
      );
  }
  const { size } = states[0] ?? { size: [1, 1] as const };
  return ok({
    raw,
    width,
    height,
    facts: { looks: manifest.looks, states: runs, parts: [], under: null },
    source: [Math.round(size[0]), Math.round(size[1])],
  });
}

/** In parts: the whole first, with its eyes open and its mouth shut, then each part on a cell of its own. */
async function partsOf(
  manifest: Extract<FigureManifest, { drawing: unknown }>,
  files: ReadonlyMap<string, Buffer>,
): Promise<Result<Cells>> {
  const file = fileOf(files, manifest.drawing);
  if (!file.ok) return file;
  const bad = (code: string): Result<never> =>
    refused("figure/bad-file", { file: cut(manifest.drawing, 80), why: pictureRefusalInWords(code) });
  const text = file.value.toString("utf8");
  if (isTooLong(text)) return bad("picture/too-complex");
  const clean = cleanSvg(text);
  if (clean === null) return bad("picture/unknown-kind");
  if (isTooHeavy(clean)) return bad("picture/too-complex");
  const apart = svgParts(clean, partNames);
  const missing = Object.keys(manifest.parts).find((name) => !apart.has(name as PartName));
  if (missing !== undefined) return refused("figure/no-part", { part: missing });
  const side = Math.min(partSide, Math.floor(Math.sqrt(mostSheetPixels / (apart.size + 1))));
  const use = { ...propUse(pictureDefaults), stillSide: side };
  const draw = (svg: string) => toFrames(Buffer.from(svg), use);
  const cells: Buffer[] = [];
  const parts: FigureFacts["parts"] = [];
  let under: number | null = null;
  const shut = [...apart].filter(([name]) => name !== "lids" && name !== "mouth-open");
  const whole = await draw(clean);
  if (!whole.ok) return bad(whole.refusal.code);
  const { frameWidth: width, frameHeight: height, sourceWidth, sourceHeight } = whole.value;
  for (const [name, svg] of apart) {
    const drawn = await draw(svg);
    const cell = drawn.ok ? drawn.value.raw[0] : undefined;
    if (!drawn.ok || cell === undefined || drawn.value.frameWidth !== width) {
      if (name !== "") return refused("figure/no-part", { part: name });
      continue;
    }
    cells.push(cell);
    if (name === "") under = cells.length;
    else {
      const [x, y] = manifest.parts[name]?.turnsAt ?? turningPoint(name, cell, width, height);
      parts.push({ name, cell: cells.length, x, y });
    }
  }
  const tile = { width, height, channels: 4 as const };
  const still = await sharp({ create: { ...tile, background: { r: 0, g: 0, b: 0, alpha: 0 } } })
    .composite(shut.flatMap(([name]) => cellOf(name, { cells, parts, under })).map((input) => ({ input, raw: tile })))
    .raw()
    .toBuffer();
  const facts: FigureFacts = { looks: manifest.looks, states: { rest: { first: 0, frames: 1, frameMs: 0, loop: true } }, parts, under };
  return ok({ raw: [still, ...cells], width, height, facts, source: [sourceWidth, sourceHeight] });
}
function cellOf(
  name: PartName | "",
  { cells, parts, under }: Readonly<{ cells: readonly Buffer[]; parts: FigureFacts["parts"]; under: number | null }>,
): readonly Buffer[] {
  const cell = name === "" ? under : parts.find((p) => p.name === name)?.cell;
  const found = cell == null ? undefined : cells[cell - 1];
  return found === undefined ? [] : [found];
}

/** About which point a part turns where nobody said: where such a part hangs on what bears it. Shares of the drawing. */
function turningPoint(name: PartName, rgba: Buffer, width: number, height: number): [number, number] {
  let [left, top, right, bottom] = [width, height, 0, 0];
  for (let y = 0; y < height; y += 1)
    for (let x = 0; x < width; x += 1)
      if ((rgba[(y * width + x) * 4 + 3] ?? 0) > 16) {
        left = Math.min(left, x);
        right = Math.max(right, x);
        top = Math.min(top, y);
        bottom = y;
      }
  const middle: [number, number] = [(left + right) / 2 / width, (top + bottom) / 2 / height];
  switch (name) {
    case "head":
    case "ear-left":
    case "ear-right":
    case "body":
    case "back":
      return [middle[0], bottom / height];
    case "arm-left":
    case "arm-right":
    case "leg-left":
    case "leg-right":
      return [middle[0], top / height];
    case "tail":
      // It hangs at the end that is nearer to the middle of the drawing.
      return [(middle[0] > 0.5 ? left : right) / width, bottom / height];
    default:
      return middle;
  }
}
