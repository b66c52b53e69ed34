import { mkdtemp, writeFile } from "node:fs/promises";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { ok, type Result } from "../../core/kernel/refusal";
import { type Sheet, toSheet } from "../pictures/sheet";
import { type MadeProp, makeProp } from "../props/make";
import { filesInZip } from "../props/zip";

/** What is done with a file from outside. Each may hang, or want more memory than there is: so none runs in a server process. */
export type Job =
  | Readonly<{ do: "picture"; bytes: Uint8Array }>
  | Readonly<{ do: "prop"; bytes: Uint8Array; kept: Readonly<{ kind: "picture" | "sound"; settings: unknown }> | null }>
  | Readonly<{ do: "unzip"; bytes: Uint8Array; mostEach: number }>;
export type Unpacked = Readonly<{ folder: string; files: readonly Readonly<{ name: string; path: string }>[] }>;
export type Done = Readonly<{ picture: Result<Sheet>; prop: Result<MadeProp>; unzip: Result<Unpacked> }>;

export async function work<J extends Job>(job: J): Promise<Done[J["do"]]> {
  const bytes = Buffer.from(job.bytes.buffer, job.bytes.byteOffset, job.bytes.byteLength);
  // Each branch answers as its job does; the compiler can't follow that through a generic.
  const answer = async (): Promise<Done[Job["do"]]> => {
    switch (job.do) {
      case "picture":
        return toSheet(bytes);
      case "prop":
        return makeProp(bytes, job.kept ?? undefined);
      case "unzip":
        return unzip(bytes, job.mostEach);
    }
  };
  return (await answer()) as Done[J["do"]];
}

/** Into a folder of its own, so that the server reads one file at a time; whoever asked removes it. */
async function unzip(bytes: Buffer, mostEach: number): Promise<Result<Unpacked>> {
  const found = await filesInZip(bytes, mostEach);
  if (!found.ok) return found;
  const folder = await mkdtemp(join(tmpdir(), "izzam-zip-"));
  const files: { name: string; path: string }[] = [];
  for (const [i, file] of found.value.entries()) {
    const path = join(folder, String(i));
    await writeFile(path, file.bytes, { mode: 0o600 });
    files.push({ name: file.name, path });
  }
  return ok({ folder, files });
}
