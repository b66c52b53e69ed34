/** Something that only a person can decide. `other` is empty where there is but one answer. */
export type Decision = Readonly<{
  id: string;
  sinceMs: number;
  words: string;
  about: string;
  main: string;
  other: string;
  decide: (yes: boolean) => Promise<void>;
}>;
