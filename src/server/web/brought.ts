import { createHash } from "node:crypto";
import { createReadStream } from "node:fs";
import { open, readFile, writeFile } from "node:fs/promises";
import { join } from "node:path";
import { sha256 } from "../hash";

/** A file that somebody brought: in memory when it is small or was made here, else where it was put while it came. */
export type Brought = Readonly<{ name: string; size: number }> & (Readonly<{ bytes: Buffer }> | Readonly<{ path: string }>);

export const inMemory = (bytes: Buffer, name = "file"): Brought => ({ name, size: bytes.length, bytes });

/** Enough to see what kind of file it is. */
const headBytes = 4_100;
export async function headOf(file: Brought): Promise<Buffer> {
  if ("bytes" in file) return file.bytes.subarray(0, headBytes);
  const handle = await open(file.path);
  try {
    const { buffer, bytesRead } = await handle.read(Buffer.alloc(headBytes), 0, headBytes, 0);
    return buffer.subarray(0, bytesRead);
  } finally {
    await handle.close();
  }
}

/** All of it: only for what is known to be small. */
export const bytesOf = (file: Brought): Promise<Buffer> => ("bytes" in file ? Promise.resolve(file.bytes) : readFile(file.path));

export async function shaOf(file: Brought): Promise<string> {
  if ("bytes" in file) return sha256(file.bytes);
  const hash = createHash("sha256");
  for await (const part of createReadStream(file.path)) hash.update(part as Buffer);
  return hash.digest("hex");
}

/** Where it lies, so that another process can read it; what is in memory is written into the folder. */
export async function pathOf(file: Brought, folder: string): Promise<string> {
  if ("path" in file) return file.path;
  const path = join(folder, "brought");
  await writeFile(path, file.bytes, { mode: 0o600 });
  return path;
}
