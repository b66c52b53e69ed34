/** Lightens (above 0) or darkens a #rrggbb colour. */
export function shade(colour: string, by: number): string {
  const n = parseInt(colour.slice(1), 16);
  const part = (shift: number): number => {
    const v = (n >> shift) & 255;
    return Math.round(by >= 0 ? v + (255 - v) * by : v * (1 + by));
  };
  return `rgb(${part(16)},${part(8)},${part(0)})`;
}

/** Relative luminance by WCAG 2.2, 0 to 1. */
export function luminance(colour: string): number {
  const n = parseInt(colour.slice(1), 16);
  const part = (shift: number): number => {
    const v = ((n >> shift) & 255) / 255;
    return v <= 0.04045 ? v / 12.92 : ((v + 0.055) / 1.055) ** 2.4;
  };
  return 0.2126 * part(16) + 0.7152 * part(8) + 0.0722 * part(0);
}

export const ink = "#191C26";
/** Letters on a ground: whichever of ink and paper stands out more. */
export const lettersOn = (ground: string): string => (luminance(ground) > 0.26 ? ink : "#FFF8E8");
