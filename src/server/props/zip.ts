import { type Entry, fromBuffer, type ZipFile } from "yauzl";
import { ok, refused, type Result } from "../../core/kernel/refusal";

const mostFiles = 200;
const mostUnpacked = 120 * 1024 * 1024;
const mostEntries = 5_000;
/** A local header before each entry's bytes: 30 bytes and the name. */
const localHeader = 30;
export type ZipEntry = Readonly<{ name: string; bytes: Buffer }>;

const props = /\.(png|svg|gif|webp|wav|ogg|mp3|webm|mp4|mov)$/i;
const wanted = (name: string, kinds: RegExp): boolean => {
  const base = name.split("/").pop() ?? "";
  return kinds.test(base) && !base.startsWith(".") && !name.includes("__MACOSX");
};

const opened = (zip: Buffer): Promise<ZipFile> =>
  new Promise((resolve, reject) =>
    fromBuffer(zip, { lazyEntries: true, validateEntrySizes: true, strictFileNames: true }, (error, file) =>
      error === null ? resolve(file) : reject(error),
    ),
  );
const entriesOf = (file: ZipFile): Promise<Entry[]> =>
  new Promise((resolve, reject) => {
    const list: Entry[] = [];
    file.on("entry", (entry: Entry) => {
      list.push(entry);
      if (list.length > mostEntries) reject(new Error("too many entries"));
      else file.readEntry();
    });
    file.on("end", () => resolve(list));
    file.on("error", reject);
    file.readEntry();
  });

/** What a ZIP of a show is made of. */
export const showParts = /^(log\.ndjson|(manifest|moments)\.json|results\.csv)$/;

/** Bytes are counted as they come out, whatever the file says of itself; a size that is not true is an error. */
const bytesOf = (file: ZipFile, entry: Entry, most: number): Promise<Buffer> =>
  new Promise((resolve, reject) =>
    file.openReadStream(entry, (error, stream) => {
      if (error !== null) return reject(error);
      const parts: Buffer[] = [];
      let size = 0;
      stream.on("data", (part: Buffer) => {
        size += part.length;
        if (size > most) stream.destroy(new Error("too large"));
        else parts.push(part);
      });
      stream.on("end", () => resolve(Buffer.concat(parts)));
      stream.on("error", reject);
    }),
  );

/** No two entries share bytes: one stream of zeros under two hundred names is a trap. */
function overlap(entries: readonly Entry[]): boolean {
  const places = entries
    .map((e) => ({ from: e.relativeOffsetOfLocalHeader, to: e.relativeOffsetOfLocalHeader + localHeader + e.compressedSize }))
    .sort((a, b) => a.from - b.from);
  return places.some((place, i) => i > 0 && place.from < (places[i - 1]?.to ?? 0));
}

/**
 * The files of a ZIP file whose names end as wanted, by name; pictures and sounds when left out. Refused: damaged, entries that overlap, sizes that are not
 * true, too many, or unpacking to more than is allowed.
 */
export async function filesInZip(
  zip: Buffer,
  mostEach: number,
  kinds = props,
  mostAll = mostUnpacked,
): Promise<Result<readonly ZipEntry[]>> {
  try {
    const file = await opened(zip);
    const entries = await entriesOf(file);
    const list = entries.filter((e) => wanted(e.fileName, kinds));
    if (list.length > mostFiles || overlap(entries)) return refused("prop/bad-zip");
    let left = mostAll;
    const found: ZipEntry[] = [];
    for (const entry of list) {
      const bytes = await bytesOf(file, entry, Math.min(mostEach, left));
      left -= bytes.length;
      found.push({ name: entry.fileName.split("/").pop() ?? entry.fileName, bytes });
    }
    return found.length === 0 ? refused("prop/nothing-in-zip") : ok(found.sort((a, b) => (a.name < b.name ? -1 : 1)));
  } catch {
    return refused("prop/bad-zip");
  }
}
export const isZip = (bytes: Buffer): boolean => bytes.length > 4 && bytes.readUInt32LE(0) === 0x04034b50;
