import { readdir, readFile } from "node:fs/promises";
import { join } from "node:path";

/** Frames drawn one by one (the files of a folder, by name) become one animated picture, as an artist's program would make it. */
async function animation(folder: string): Promise<Buffer> {
  // Loaded for this alone: the web process asks for it once in its life, if ever.
  const { default: sharp } = await import("sharp");
  const names = (await readdir(folder)).sort();
  const frames = await Promise.all(names.map((name) => sharp(join(folder, name)).resize(128, 128).png().toBuffer()));
  return sharp(frames, { join: { animated: true } })
    .webp({ lossless: true, loop: 0, delay: names.map(() => 80) })
    .toBuffer();
}

/** The drawn emotes of a folder, each with its word: single pictures, and folders of frames. */
export async function drawnEmotes(folder: string): Promise<readonly Readonly<{ word: string; bytes: () => Promise<Buffer> }>[]> {
  const entries = await readdir(folder, { withFileTypes: true });
  return entries
    .sort((a, b) => (a.name < b.name ? -1 : 1))
    .map((entry) => {
      const path = join(folder, entry.name);
      return { word: entry.name.replace(/\.svg$/, ""), bytes: () => (entry.isDirectory() ? animation(path) : readFile(path)) };
    });
}
