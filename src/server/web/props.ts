import { mkdtemp, readFile, rm } from "node:fs/promises";
import { tmpdir } from "node:os";
import { join } from "node:path";
import type { ChannelId } from "../../core/kernel/ids";
import { cut, wellFormed } from "../../core/kernel/text";
import { ok, refused, type Result } from "../../core/kernel/refusal";
import type { WebServices } from "../composition";
import { fetchFile } from "../props/address";
import { mostPropBytes } from "../props/make";
import { isZip } from "../props/zip";
import { sha256 } from "../pictures/sheet";
import { newToken } from "../secrets";
import { refusalInWords } from "./words";

export const mostUpload = 64 * 1024 * 1024;
export type Added = Readonly<{ name: string; ok: boolean; words: string; id: string }>;

const nameFrom = (fileName: string): string =>
  cut(wellFormed(fileName), 80)
    .replace(/\.[^.]*$/, "")
    .replace(/[_-]+/g, " ")
    .replace(/\s+/g, " ")
    .trim() || "without a name";

async function addOne(web: WebServices, channel: ChannelId, bytes: Buffer, fileName: string): Promise<Result<{ id: string }>> {
  const made = await web.decoder.prop(bytes);
  if (!made.ok) return made;
  const id = newToken();
  const { kind, sourceKind, made: file, settings, facts, name = nameFrom(fileName) } = made.value;
  const source = { sha: sha256(bytes), mime: "application/octet-stream", bytes };
  const added = await web.store.props.add(channel, { id, name, kind, sourceKind, source, made: file, settings, facts }, web.clock.now());
  return added.ok ? ok({ id }) : added;
}

/** A file, or all files of a ZIP, each with its own answer; a ZIP that describes a figure is one thing. */
export async function addProps(web: WebServices, channel: ChannelId, bytes: Buffer, fileName: string): Promise<Result<readonly Added[]>> {
  const answers: Added[] = [];
  const add = async (file: Buffer, name: string): Promise<Result<{ id: string }>> => {
    const done = await addOne(web, channel, file, name);
    answers.push({ name, ok: done.ok, words: done.ok ? "" : refusalInWords(done.refusal), id: done.ok ? done.value.id : "" });
    return done;
  };
  const figure =
    isZip(bytes) && bytes.length <= mostPropBytes ? await addOne(web, channel, bytes, fileName) : refused("figure/no-manifest");
  if (figure.ok || figure.refusal.code !== "figure/no-manifest") {
    const words = figure.ok ? "" : refusalInWords(figure.refusal);
    if (!figure.ok && !figure.refusal.code.startsWith("prop/")) return figure;
    answers.push({ name: nameFrom(fileName), ok: figure.ok, words, id: figure.ok ? figure.value.id : "" });
  } else if (isZip(bytes)) {
    const folder = await mkdtemp(join(tmpdir(), "izzam-zip-"));
    try {
      const unpacked = await web.decoder.unzip(bytes, mostPropBytes, folder);
      if (!unpacked.ok) return unpacked;
      for (const { name, path } of unpacked.value) await add(await readFile(path), name);
    } finally {
      await rm(folder, { recursive: true, force: true });
    }
  } else {
    if (bytes.length > mostPropBytes) return refused("prop/too-large", { mostMb: mostPropBytes / 1024 / 1024 });
    const only = await add(bytes, fileName);
    // A file that is nothing is refused as a whole; one that is there already is an answer of its own.
    if (!only.ok && !only.refusal.code.startsWith("prop/")) return only;
  }
  if (answers.some((a) => a.ok)) await web.engine.reload(channel);
  return ok(answers);
}

export async function addFromAddress(web: WebServices, channel: ChannelId, address: string): Promise<Result<readonly Added[]>> {
  const file = await fetchFile(address, mostUpload);
  return file.ok ? addProps(web, channel, file.value.bytes, file.value.name) : file;
}

/** Cut, framed or trimmed anew, always from the untouched source. */
export async function reshapeProp(web: WebServices, channel: ChannelId, id: string, settings: unknown): Promise<Result<null>> {
  const kept = await web.store.props.source(channel, id);
  if (kept === null) return refused("prop/unknown");
  const made = await web.decoder.prop(kept.bytes, { kind: kept.kind, settings });
  if (!made.ok) return made;
  const done = await web.store.props.remake(channel, id, { ...made.value, source: null }, web.clock.now());
  if (done.ok) await web.engine.reload(channel);
  return done;
}

/** Another file in its place: everything that uses it shows the new one. */
export async function replaceProp(web: WebServices, channel: ChannelId, id: string, bytes: Buffer): Promise<Result<null>> {
  const kept = await web.store.props.source(channel, id);
  if (kept === null) return refused("prop/unknown");
  if (bytes.length > mostPropBytes) return refused("prop/too-large", { mostMb: mostPropBytes / 1024 / 1024 });
  const made = await web.decoder.prop(bytes);
  if (!made.ok) return made;
  if (made.value.kind !== kept.kind) return refused("prop/other-kind");
  const source = { sha: sha256(bytes), mime: "application/octet-stream", bytes };
  const done = await web.store.props.remake(channel, id, { ...made.value, source }, web.clock.now());
  if (done.ok) await web.engine.reload(channel);
  return done;
}

/** Every prop with how often it is used, and where. */
export async function propsWithUses(web: WebServices, channel: ChannelId) {
  const [props, places] = await Promise.all([web.store.props.props(channel), web.store.props.uses(channel)]);
  return props.map((prop) => ({ ...prop, usedIn: places.filter((p) => p.text.includes(prop.id)).map((p) => p.name) }));
}
export type PropWithUses = Awaited<ReturnType<typeof propsWithUses>>[number];
