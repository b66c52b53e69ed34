import { randomUUID } from "node:crypto";
import { createReadStream } from "node:fs";
import { mkdtemp, readFile, rm } from "node:fs/promises";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { createInterface } from "node:readline";
import { LRUCache } from "lru-cache";
import Papa from "papaparse";
import { z } from "zod";
import type { ChannelId } from "../../core/kernel/ids";
import { ok, refused, type Result } from "../../core/kernel/refusal";
import { cut } from "../../core/kernel/text";
import { OutsideLog, type OutsideLine, type OutsideShow, readManifest, readMoments, readResults } from "../../core/review/outside";
import type { WebServices } from "../composition/web";
import type { Session } from "../ports/operator-store";
import { type Brought, pathOf } from "./brought";
import { saidBy } from "./show-lines";

/** Unpacked it is no larger: a log of half a million lines is half of it. */
const mostUnpacked = 250 * 1024 * 1024;

/** Takes in a show of another installation, to be looked at. It is unpacked where it can be ended; its log is read line by line. */
export async function addOutsideShow(
  { store, decoder, clock }: Pick<WebServices, "store" | "decoder" | "clock">,
  session: Session,
  brought: Brought,
): Promise<Result<Readonly<{ id: string; bad: number }>>> {
  const folder = await mkdtemp(join(tmpdir(), "izzam-show-"));
  try {
    const files = await decoder.unzip(await pathOf(brought, folder), mostUnpacked, folder, "show");
    if (!files.ok) return files.refusal.code === "prop/nothing-in-zip" ? refused("outside/no-manifest") : files;
    const partAt = (name: string): string | null => files.value.find((f) => f.name === name)?.path ?? null;
    const textOf = async (name: string): Promise<string | null> => {
      const path = partAt(name);
      return path === null ? null : readFile(path, "utf8");
    };
    const manifest = readManifest(await textOf("manifest.json"));
    if (!manifest.ok) return manifest;
    const log = new OutsideLog(manifest.value, saidBy);
    const path = partAt("log.ndjson");
    if (path !== null) for await (const line of createInterface({ input: createReadStream(path), crlfDelay: Infinity })) log.add(line);
    const table = Papa.parse<Record<string, string>>((await textOf("results.csv")) ?? "", { header: true, skipEmptyLines: true });
    const show: OutsideShow = {
      manifest: manifest.value,
      curve: log.curve,
      marks: log.marks,
      moments: readMoments(await textOf("moments.json")),
      results: readResults(table.data),
      messages: log.messages,
      people: log.people,
      bad: log.bad,
    };
    const id = randomUUID();
    const { channel, show: told } = manifest.value;
    const name = cut(`${told.name} · ${channel}`, 120);
    const added = await store.outsideShows.add({ id, channel: session.channelId, name, by: session.login }, show, log.lines, clock.now());
    return added.ok ? ok({ id, bad: log.bad }) : added;
  } finally {
    await rm(folder, { recursive: true, force: true });
  }
}

export async function actOnOutsideShow(
  { store, clock }: Pick<WebServices, "store" | "clock">,
  channel: ChannelId,
  id: string,
  act: Readonly<{ do: "remove" | "restore" }> | Readonly<{ do: "rename"; name: string }>,
): Promise<Result<null>> {
  unpacked.delete(keyOf(channel, id));
  if (act.do === "restore") return store.outsideShows.restore(channel, id);
  const done =
    act.do === "rename"
      ? await store.outsideShows.rename(channel, id, act.name)
      : await store.outsideShows.remove(channel, id, clock.now());
  return done ? ok(null) : refused("outside/unknown");
}

export const outsideLinesSchema = z.object({
  from: z.coerce.number().min(0).default(0),
  to: z.coerce.number().min(0).default(Number.MAX_SAFE_INTEGER),
  skip: z.coerce.number().int().min(0).default(0),
  words: z.string().trim().max(80).default(""),
});
const atOnce = 200;
/** Somebody was forgotten: what was unpacked before may name them. */
export const forgetUnpacked = (): void => unpacked.clear();
const keyOf = (channel: ChannelId, id: string): string => `${channel} ${id}`;
/** Whoever reads on reads the same one: what was unpacked is kept for a while. */
const unpacked = new LRUCache<string, readonly OutsideLine[]>({ max: 2, ttl: 300_000 });
export async function outsideLines(
  { store }: Pick<WebServices, "store">,
  channel: ChannelId,
  id: string,
  { from, to, skip, words }: z.infer<typeof outsideLinesSchema>,
): Promise<Readonly<{ lines: readonly OutsideLine[]; more: boolean }> | null> {
  const key = keyOf(channel, id);
  const known = unpacked.get(key);
  const all = known ?? (await store.outsideShows.lines(channel, id));
  if (all === null) return null;
  // Kept from when it was unpacked, however often it is read: a while is a while.
  if (known === undefined) unpacked.set(key, all);
  const wanted = words.toLowerCase();
  const found: OutsideLine[] = [];
  let left = skip;
  for (const line of all) {
    if (line.atMs < from || line.atMs > to) continue;
    if (wanted !== "" && !line.text.toLowerCase().includes(wanted) && !line.name.toLowerCase().includes(wanted)) continue;
    if (left > 0) left -= 1;
    else if (found.push(line) > atOnce) break;
  }
  return { lines: found.slice(0, atOnce), more: found.length > atOnce };
}
