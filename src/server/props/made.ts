import type { PictureFacts, PictureSettings, SoundFacts, SoundSettings } from "../../core/props/settings";

/** What becomes of a file: the file to serve, and what is known of it. */
export type MadeProp = Readonly<{
  kind: "picture" | "sound";
  sourceKind: string;
  made: Readonly<{ sha: string; mime: string; bytes: Buffer }>;
  settings: PictureSettings | SoundSettings;
  facts: PictureFacts | SoundFacts;
  /** What it calls itself, where it does. */
  name?: string;
}>;
