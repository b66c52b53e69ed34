import { createWriteStream } from "node:fs";
import { mkdtemp, rm } from "node:fs/promises";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { Readable } from "node:stream";
import { pipeline } from "node:stream/promises";
import busboy from "busboy";
import { refused, type Refusal, type Result } from "../../core/kernel/refusal";
import type { Brought } from "./brought";

/** What a form may hold beside its file. */
const aside = 64 * 1024;

export type Taken = Readonly<{ most: number; tooLarge: Refusal; missing: Refusal }>;

/**
 * Takes the one file of a form, straight to the disk, so that its size is no matter for our memory; it is gone again when the
 * work with it is done. A form that announces more is refused before it is read, one that says nothing of its length too.
 */
export async function withUpload<T>(
  request: Request,
  field: string,
  { most, tooLarge, missing }: Taken,
  work: (file: Brought) => Promise<Result<T>>,
): Promise<Result<T>> {
  if (Number(request.headers.get("content-length") ?? Infinity) > most + aside) return { ok: false, refusal: tooLarge };
  if (request.body === null) return { ok: false, refusal: missing };
  const folder = await mkdtemp(join(tmpdir(), "izzam-upload-"));
  try {
    const came = await received(request, field, join(folder, "file"), most);
    if (came === "too-large") return { ok: false, refusal: tooLarge };
    if (came === "broken") return refused("upload/broken");
    return came === null ? { ok: false, refusal: missing } : await work(came);
  } finally {
    await rm(folder, { recursive: true, force: true });
  }
}

async function received(request: Request, field: string, path: string, most: number): Promise<Brought | "too-large" | "broken" | null> {
  let form: busboy.Busboy;
  try {
    const limits = { files: 1, fileSize: most + 1, fields: 10, fieldSize: aside, parts: 12 };
    form = busboy({ headers: { "content-type": request.headers.get("content-type") ?? "" }, limits, defParamCharset: "utf8" });
  } catch {
    // No form at all.
    return null;
  }
  let writing: Promise<Brought | "too-large"> | null = null;
  form.on("file", (name, stream, { filename }) => {
    // A stream whose form broke off fails here and is told below; without a listener it would end the process.
    stream.on("error", () => undefined);
    if (name !== field || writing !== null) return void stream.resume();
    const disk = createWriteStream(path, { mode: 0o600 });
    writing = pipeline(stream, disk).then(() => {
      const size = disk.bytesWritten;
      return stream.truncated === true || size > most ? "too-large" : { name: filename ?? "file", size, path };
    });
    writing.catch(() => undefined);
  });
  try {
    // The types of the web's streams and of Node's differ in a letter; it is the same stream.
    await pipeline(Readable.fromWeb(request.body as Parameters<typeof Readable.fromWeb>[0]), form);
    return await (writing as Promise<Brought | "too-large"> | null);
  } catch (error) {
    if ((error as NodeJS.ErrnoException).code === "ENOSPC") throw error;
    return "broken";
  }
}
