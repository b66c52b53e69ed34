import type { Facts } from "../../core/kernel/refusal";

const words: Readonly<Record<string, string>> = {
  "video/too-large": "The file is larger than {mostMb} MB. Shorten it and add it again.",
  "video/broken": "The moving picture can’t be read: the file is damaged, or not what it says it is.",
  "video/no-picture": "There is no moving picture in this file.",
  "video/too-many-tracks": "The file has more than {most} tracks. Export it with one picture and one sound.",
  "video/too-many-pixels": "The picture is wider or higher than {most} pixels.",
  "video/too-long": "It is longer than {mostS} seconds. Shorten it and add it again.",
  "video/no-video": "This is not a WebM, MP4, MOV or GIF moving picture, whatever its name or address says.",
  "video/ends-before": "It is not that long: it ends after {atS} s, before the place to start.",
  "video/too-short": "There is nothing to see in it: it is shorter than a fifth of a second.",
};
export const videoRefusalInWords = (code: string, facts: Facts): string | null => {
  const said = words[code];
  return said === undefined ? null : said.replace(/\{(\w+)\}/g, (_, name: string) => String(facts[name] ?? ""));
};
