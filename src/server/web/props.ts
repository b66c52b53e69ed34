import { mkdtemp, rm, stat } from "node:fs/promises";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { fileTypeFromBuffer } from "file-type";
import type { ChannelId } from "../../core/kernel/ids";
import { cut, wellFormed } from "../../core/kernel/text";
import { ok, refused, type Result } from "../../core/kernel/refusal";
import { pictureDefaults, pictureFactsSchema } from "../../core/props/settings";
import { videoDefaults, type VideoSettings, videoSettingsSchema } from "../../core/props/video";
import type { WebServices } from "../composition/web";
import { fetchFile } from "../props/address";
import { inMegabytes, mostFilmBytes, mostPropBytes } from "../../core/props/sizes";
import { isZip } from "../props/zip";
import { sha256 } from "../hash";
import { newToken } from "../secrets";
import { type Brought, bytesOf, headOf, inMemory, pathOf, shaOf } from "./brought";
import { refusalInWords } from "./words";

const tooLarge = (most: number): Result<never> => refused("prop/too-large", { mostMb: inMegabytes(most) });
/** `making`: it is yet to be made, and is not there before. */
export type Added = Readonly<{ name: string; ok: boolean; words: string; id: string; making?: boolean }>;

const nameFrom = (fileName: string): string =>
  cut(wellFormed(fileName), 80)
    .replace(/\.[^.]*$/, "")
    .replace(/[_-]+/g, " ")
    .replace(/\s+/g, " ")
    .trim() || "without a name";

type One = Readonly<{ id: string; making?: boolean }>;
async function addOne(web: WebServices, channel: ChannelId, brought: Brought): Promise<Result<One>> {
  const sha = await shaOf(brought);
  const fileName = brought.name;
  // Asked first: opening a sound again only to find it known takes seconds.
  const same = await web.store.props.sameSource(channel, sha);
  if (same !== null) return refused("prop/same", { name: same });
  if (await isFilm(brought)) return addFilm(web, channel, brought);
  const bytes = await bytesOf(brought);
  const made = await web.decoder.prop(bytes);
  // A drawn animation too long or too large for a sheet of frames is a moving picture.
  if (!made.ok && (await isLongGif(brought, made.refusal.code))) return addFilm(web, channel, brought);
  if (!made.ok) return made;
  const id = newToken();
  const { kind, sourceKind, made: file, settings, facts, name = nameFrom(fileName) } = made.value;
  const source = { sha, mime: "application/octet-stream", bytes };
  const added = await web.store.props.add(channel, { id, name, kind, sourceKind, source, made: file, settings, facts }, web.clock.now());
  return added.ok ? ok({ id }) : added;
}

const mimeOf = async (file: Brought): Promise<string> => (await fileTypeFromBuffer(await headOf(file)))?.mime ?? "";
const isFilm = async (file: Brought): Promise<boolean> => (await mimeOf(file)).startsWith("video/");
const isLongGif = async (file: Brought, code: string): Promise<boolean> =>
  (code === "picture/too-large" || code === "picture/too-many-frames") && (await mimeOf(file)) === "image/gif";

/** Kept as it came, and made by and by: it takes longer than anybody waits for an answer. */
async function addFilm(web: WebServices, channel: ChannelId, film: Brought): Promise<Result<One>> {
  const id = newToken();
  const name = nameFrom(film.name);
  const done = await orderFilm(web, channel, { id: newToken(), purpose: "new", about: id, name, request: videoDefaults }, film);
  return done.ok ? ok({ id, making: true }) : done;
}
async function orderFilm(
  web: WebServices,
  channel: ChannelId,
  job: Readonly<{ id: string; purpose: "new" | "shape" | "replace"; about: string; name: string; request: VideoSettings }>,
  source: Brought | string,
): Promise<Result<null>> {
  const nowMs = web.clock.now();
  const sha = typeof source === "string" ? source : await shaOf(source);
  if (typeof source !== "string") {
    if (source.size > mostFilmBytes) return tooLarge(mostFilmBytes);
    await web.store.media.putFile({ ...source, sha, mime: "application/octet-stream" }, nowMs);
  }
  return web.store.media.add({ ...job, channel, sourceSha: sha, urgent: false }, nowMs);
}

/** A file, or all files of a ZIP, each with its own answer; a ZIP that describes a figure is one thing. */
export async function addProps(web: WebServices, channel: ChannelId, brought: Brought): Promise<Result<readonly Added[]>> {
  const answers: Added[] = [];
  const zip = isZip(await headOf(brought));
  const add = async (file: Brought): Promise<Result<One>> => {
    const done = await addOne(web, channel, file);
    const [id, making] = done.ok ? [done.value.id, done.value.making === true] : ["", false];
    answers.push({ name: file.name, ok: done.ok, words: done.ok ? "" : refusalInWords(done.refusal), id, ...(making ? { making } : {}) });
    return done;
  };
  const figure = zip && brought.size <= mostPropBytes ? await addOne(web, channel, brought) : refused("figure/no-manifest");
  if (figure.ok || figure.refusal.code !== "figure/no-manifest") {
    const words = figure.ok ? "" : refusalInWords(figure.refusal);
    if (!figure.ok && !figure.refusal.code.startsWith("prop/")) return figure;
    answers.push({ name: nameFrom(brought.name), ok: figure.ok, words, id: figure.ok ? figure.value.id : "" });
  } else if (zip) {
    const folder = await mkdtemp(join(tmpdir(), "izzam-zip-"));
    try {
      const unpacked = await web.decoder.unzip(await pathOf(brought, folder), mostPropBytes, folder);
      if (!unpacked.ok) return unpacked;
      for (const { name, path } of unpacked.value) await add({ name, path, size: (await stat(path)).size });
    } finally {
      await rm(folder, { recursive: true, force: true });
    }
  } else {
    if (brought.size > mostPropBytes && !(await isFilm(brought)) && !(await isLongGif(brought, "picture/too-large")))
      return tooLarge(mostPropBytes);
    const only = await add(brought);
    // A file that is nothing is refused as a whole; one that is there already is an answer of its own.
    if (!only.ok && !only.refusal.code.startsWith("prop/")) return only;
  }
  if (answers.some((a) => a.ok)) await web.engine.reload(channel);
  return ok(answers);
}

export async function addFromAddress(web: WebServices, channel: ChannelId, address: string): Promise<Result<readonly Added[]>> {
  const file = await fetchFile(address, mostFilmBytes);
  return file.ok ? addProps(web, channel, inMemory(file.value.bytes, file.value.name)) : file;
}

/** Cut, framed or trimmed anew, always from the untouched source. */
export async function reshapeProp(web: WebServices, channel: ChannelId, id: string, settings: unknown): Promise<Result<null>> {
  const kept = await web.store.props.source(channel, id);
  if (kept === null) return refused("prop/unknown");
  if (kept.kind === "video") {
    const given = videoSettingsSchema.safeParse(settings);
    if (!given.success) return refused("input/invalid", { why: given.error.issues[0]?.message ?? "It can’t be cut so." });
    return orderFilm(web, channel, { id: newToken(), purpose: "shape", about: id, name: "", request: given.data }, kept.sha);
  }
  const made = await web.decoder.prop(kept.bytes, { kind: kept.kind, settings });
  if (!made.ok) return made;
  const done = await web.store.props.remake(channel, id, { ...made.value, source: null }, web.clock.now());
  if (done.ok) await web.engine.reload(channel);
  return done;
}

export type WholePicture = Readonly<{ image: string; frames: number; columns: number; frameWidth: number; frameHeight: number }>;
/** A picture as it came, its frames in one picture; cutting happens on it. */
export async function wholePicture(web: WebServices, channel: ChannelId, id: string): Promise<Result<WholePicture>> {
  const kept = await web.store.props.source(channel, id);
  if (kept === null || kept.kind !== "picture") return refused("prop/unknown");
  const made = await web.decoder.prop(kept.bytes, { kind: "picture", settings: pictureDefaults });
  if (!made.ok) return made;
  const { frames, columns, frameWidth, frameHeight } = pictureFactsSchema.parse(made.value.facts);
  return ok({
    image: `data:image/webp;base64,${Buffer.from(made.value.made.bytes).toString("base64")}`,
    frames,
    columns,
    frameWidth,
    frameHeight,
  });
}

/** Another file in its place: everything that uses it shows the new one. */
export async function replaceProp(web: WebServices, channel: ChannelId, id: string, brought: Brought): Promise<Result<null>> {
  const kept = await web.store.props.source(channel, id);
  if (kept === null) return refused("prop/unknown");
  if (kept.kind === "video") {
    if (!(await isFilm(brought)) && (await mimeOf(brought)) !== "image/gif") return refused("prop/other-kind");
    // Another file is cut otherwise: as it comes.
    return orderFilm(web, channel, { id: newToken(), purpose: "replace", about: id, name: "", request: videoDefaults }, brought);
  }
  if (await isFilm(brought)) return refused("prop/other-kind");
  if (brought.size > mostPropBytes) return tooLarge(mostPropBytes);
  const bytes = await bytesOf(brought);
  const made = await web.decoder.prop(bytes);
  if (!made.ok) return made;
  if (made.value.kind !== kept.kind) return refused("prop/other-kind");
  const source = { sha: sha256(bytes), mime: "application/octet-stream", bytes };
  const done = await web.store.props.remake(channel, id, { ...made.value, source }, web.clock.now());
  if (done.ok) await web.engine.reload(channel);
  return done;
}

/** What is being made, and what could not be, of the last ten minutes: each with its words. */
export async function propsInMaking(web: WebServices, channel: ChannelId) {
  const jobs = await web.store.media.jobs(channel, web.clock.now() - 600_000);
  return jobs
    .filter((j) => j.purpose !== "clip" && (j.state === "waiting" || j.state === "working" || j.state === "failed"))
    .map(({ id, name, about, purpose, state, share, why }) => ({
      id,
      name,
      about,
      purpose,
      state,
      share,
      words: why === null ? "" : refusalInWords(why),
    }));
}
export type PropInMaking = Awaited<ReturnType<typeof propsInMaking>>[number];

/** Every prop with how often it is used, and where. */
export async function propsWithUses(web: WebServices, channel: ChannelId) {
  const [props, places] = await Promise.all([web.store.props.props(channel), web.store.props.uses(channel)]);
  return props.map((prop) => ({ ...prop, usedIn: places.filter((p) => p.text.includes(prop.id)).map((p) => p.name) }));
}
export type PropWithUses = Awaited<ReturnType<typeof propsWithUses>>[number];
