import type { Strip } from "../../../core/props/video";

/** Something that only a person can decide. `other` is empty where there is but one answer. */
export type Decision = Readonly<{
  id: string;
  sinceMs: number;
  words: string;
  about: string;
  /** Stills to judge it by. */
  strip?: Strip;
  main: string;
  other: string;
  decide: (yes: boolean) => Promise<void>;
}>;
