import { unzipSync } from "fflate";
import { ok, refused, type Result } from "../../core/kernel/refusal";

const mostFiles = 200;
const mostUnpacked = 120 * 1024 * 1024;

/** The pictures and sounds of a ZIP file, by name. Refused: damaged, too many, unpacking to more than is allowed. */
export function filesInZip(zip: Buffer, mostEach: number): Result<readonly Readonly<{ name: string; bytes: Buffer }>[]> {
  let total = 0;
  let count = 0;
  let over = false;
  try {
    const files = unzipSync(zip, {
      filter: ({ name, originalSize }) => {
        const base = name.split("/").pop() ?? "";
        if (!/\.(png|svg|gif|webp|wav|ogg|mp3)$/i.test(base) || base.startsWith(".") || name.includes("__MACOSX")) return false;
        total += originalSize;
        count += 1;
        // Before anything is unpacked: a small file can hold a very large one.
        if (total > mostUnpacked || count > mostFiles || originalSize > mostEach) over = true;
        return !over;
      },
    });
    if (over) return refused("prop/bad-zip");
    const list = Object.entries(files).map(([name, bytes]) => ({ name: name.split("/").pop() ?? name, bytes: Buffer.from(bytes) }));
    return list.length === 0 ? refused("prop/nothing-in-zip") : ok(list.sort((a, b) => (a.name < b.name ? -1 : 1)));
  } catch {
    return refused("prop/bad-zip");
  }
}
export const isZip = (bytes: Buffer): boolean => bytes.length > 4 && bytes.readUInt32LE(0) === 0x04034b50;
