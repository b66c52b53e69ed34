/** What the two engines bring: each with a name of ours. What a channel keeps is made of them. */
export const engines = ["espeak", "flite"] as const;
export type EngineName = (typeof engines)[number];

/** By the engine's own mark: what it is, and its language by BCP 47. */
export type Offered = Readonly<{ engine: EngineName; mark: string; words: string; language: string }>;
const espeak = (mark: string, words: string, language: string): Offered => ({ engine: "espeak", mark, words, language });
const flite = (mark: string, words: string, language: string): Offered => ({ engine: "flite", mark, words, language });
export const offered: readonly Offered[] = [
  espeak("en", "British", "en-GB"),
  espeak("en-gb-scotland", "Scottish", "en-GB"),
  espeak("en-gb-x-gbclan", "Lancashire", "en-GB"),
  espeak("en-us", "American", "en-US"),
  espeak("de", "German", "de"),
  espeak("fr-fr", "French", "fr"),
  espeak("es", "Spanish", "es"),
  espeak("it", "Italian", "it"),
  espeak("nl", "Dutch", "nl"),
  espeak("pl", "Polish", "pl"),
  espeak("pt-br", "Brazilian", "pt-BR"),
  espeak("sv", "Swedish", "sv"),
  espeak("da", "Danish", "da"),
  espeak("nb", "Norwegian", "nb"),
  espeak("cs", "Czech", "cs"),
  espeak("tr", "Turkish", "tr"),
  flite("slt", "a woman, American, recorded", "en-US"),
  flite("rms", "a man, American, recorded", "en-US"),
  flite("awb", "a man, Scottish, recorded", "en-GB"),
];
export const offeredOf = (engine: string, mark: string): Offered | null =>
  offered.find((o) => o.engine === engine && o.mark === mark) ?? null;

/** What a drawn-up voice sounds like, beside its language: only the first engine knows these. */
export const timbres = ["", "f1", "f2", "f3", "f4", "f5", "m1", "m3", "m4", "m7", "croak", "whisper", "whisperf"] as const;
export const timbreWords: Readonly<Record<(typeof timbres)[number], string>> = {
  "": "as it is",
  f1: "high and light",
  f2: "high and clear",
  f3: "bright",
  f4: "soft",
  f5: "small",
  m1: "calm",
  m3: "deep",
  m4: "dark",
  m7: "old",
  croak: "hoarse",
  whisper: "whispered",
  whisperf: "whispered, high",
};

/** A few words to know a voice by, in its own language. */
const tastes: Readonly<Record<string, string>> = {
  de: "Guten Abend, der Ofen ist heiß.",
  fr: "Bonsoir, le four est chaud.",
  es: "Buenas noches, el horno está caliente.",
  it: "Buona sera, il forno è caldo.",
  nl: "Goedenavond, de oven is heet.",
  pl: "Dobry wieczór, piec jest gorący.",
  "pt-BR": "Boa noite, o forno está quente.",
  sv: "God kväll, ugnen är het.",
  da: "God aften, ovnen er varm.",
  nb: "God kveld, ovnen er varm.",
  cs: "Dobrý večer, pec je horká.",
  tr: "İyi akşamlar, fırın sıcak.",
};
export const tasteOf = ({ engine, mark }: Readonly<{ engine: string; mark: string }>): string => {
  const language = offeredOf(engine, mark)?.language ?? "";
  return (Object.hasOwn(tastes, language) ? tastes[language] : undefined) ?? "Good evening, the kiln is hot.";
};
