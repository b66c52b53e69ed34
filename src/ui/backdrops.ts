/** What an overlay is looked at against; never shown on air. */
export const backdrops: Readonly<Record<string, string>> = {
  studio: "url(/studio.svg) center / cover",
  grid: "repeating-conic-gradient(#8d8d8d22 0 25%, #8d8d8d44 0 50%) 0 0 / 28px 28px",
  dark: "#10131B",
  light: "#FBF8F2",
};
export const backdropOf = (name: string): string => backdrops[name] ?? backdrops["studio"] ?? "";
