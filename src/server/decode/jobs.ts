import { readFile, writeFile } from "node:fs/promises";
import { join } from "node:path";
import { ok, type Result } from "../../core/kernel/refusal";
import { toFace } from "../pictures/face";
import { type Sheet, toSheet } from "../pictures/sheet";
import type { MadeProp } from "../props/made";
import { makeProp } from "../props/make";
import { filesInZip, showParts } from "../props/zip";

/** What is done with a file from outside. Each may hang, or want more memory than there is: so none runs in a server process. */
export type Job =
  | Readonly<{ do: "picture"; bytes: Uint8Array }>
  | Readonly<{ do: "prop"; bytes: Uint8Array; kept: Readonly<{ kind: "picture" | "sound"; settings: unknown }> | null }>
  | Readonly<{ do: "face"; bytes: Uint8Array }>
  | Readonly<{ do: "unzip"; path: string; mostEach: number; folder: string; of: UnzipOf }>;
/** `props`: pictures and sounds; `show`: what is read of a show as a file. */
export type UnzipOf = "props" | "show";
export type Unpacked = readonly Readonly<{ name: string; path: string }>[];
export type Done = Readonly<{ picture: Result<Sheet>; prop: Result<MadeProp>; unzip: Result<Unpacked>; face: Result<Buffer> }>;

export async function work<J extends Job>(job: J): Promise<Done[J["do"]]> {
  const bytes = job.do === "unzip" ? await readFile(job.path) : Buffer.from(job.bytes.buffer, job.bytes.byteOffset, job.bytes.byteLength);
  // Each branch answers as its job does; the compiler can't follow that through a generic.
  const answer = async (): Promise<Done[Job["do"]]> => {
    switch (job.do) {
      case "picture":
        return toSheet(bytes);
      case "prop":
        return makeProp(bytes, job.kept ?? undefined);
      case "face":
        return toFace(bytes);
      case "unzip":
        return unzip(bytes, job);
    }
  };
  return (await answer()) as Done[J["do"]];
}

/** Into the folder of whoever asks, so that a server reads one file at a time, and can clear up after a process that was ended. */
async function unzip(
  bytes: Buffer,
  { mostEach, folder, of }: Readonly<{ mostEach: number; folder: string; of: UnzipOf }>,
): Promise<Result<Unpacked>> {
  const found = of === "show" ? await filesInZip(bytes, mostEach, showParts, mostEach) : await filesInZip(bytes, mostEach);
  if (!found.ok) return found;
  const files: { name: string; path: string }[] = [];
  for (const [i, file] of found.value.entries()) {
    const path = join(folder, String(i));
    await writeFile(path, file.bytes, { mode: 0o600 });
    files.push({ name: file.name, path });
  }
  return ok(files);
}
