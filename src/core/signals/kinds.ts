/** What came, within a sentence: “a tip drops nothing here”. */
const words: ReadonlyMap<string, string> = new Map([
  ["follow", "a follow"],
  ["membership", "a membership"],
  ["gift", "a gift"],
  ["tip", "a tip"],
  ["reaction", "reactions"],
  ["raid", "a raid"],
  ["host", "hosting"],
  ["message", "a message"],
  ["arrival", "an arrival"],
  ["operator", "the operator"],
  ["rule", "a rule"],
]);
/** A kind of signal in words; what is not known says its own name. */
export const kindOfSignalInWords = (kind: string): string => words.get(kind) ?? kind;
