import { z } from "zod";
import { colourSchema } from "../kernel/colour";

/**
 * How an overlay is dressed: one complete look over every game on it, with colours and letters of one's own on top. What a
 * game sets for itself (its clay, its glaze) stays the game's.
 */
export const looks = ["kiln", "porcelain", "linocut", "ledger"] as const;
export type LookName = (typeof looks)[number];
export const lookWords: Readonly<Record<LookName, Readonly<{ name: string; tells: string }>>> = {
  kiln: { name: "Kiln light", tells: "Dark panels with soft corners, warm letters, things that spring." },
  porcelain: { name: "Porcelain", tells: "White panels with a double rim, dark plain letters, calm motion." },
  linocut: { name: "Linocut", tells: "No panels: thick cut letters with a dark edge, heavy and lively." },
  ledger: { name: "Ledger", tells: "Slips of paper torn off at one side, letters of one width, quick and dry." },
};

const own = z.union([colourSchema, z.literal("")]);
export const dressSchema = z.object({
  look: z.enum(looks),
  /** Empty for the look's own. */
  colours: z.object({ panel: own, letters: own, accent: own }),
  /** Where an uploaded font is, `/props/<sha>`, and how its file was called; empty for the look's own. */
  font: z.object({ url: z.union([z.string().regex(/^\/props\/[0-9a-f]{64}$/), z.literal("")]), name: z.string().max(80) }),
  /** What is heard is written, too. */
  captions: z.boolean(),
});
export type Dress = z.infer<typeof dressSchema>;
export const dressDefaults: Dress = {
  look: "kiln",
  colours: { panel: "", letters: "", accent: "" },
  font: { url: "", name: "" },
  captions: false,
};
/** What is stored, or the usual where nothing was, or what can't be read. */
export const dressOf = (stored: unknown): Dress => {
  const read = dressSchema.safeParse(stored);
  return read.success ? read.data : dressDefaults;
};

const most = 2_000_000;
/**
 * Whether a file is a WOFF2 font, by its header (W3C WOFF 2.0, section 4.1): what it says of itself must be true of it. The
 * page's own browser checks the rest, in a process of its own, and takes the look's letters where it finds it broken.
 */
export function fontProblem(bytes: Uint8Array): "font/none" | "font/too-large" | "font/damaged" | null {
  if (bytes.length > most) return "font/too-large";
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  if (bytes.length < 48 || view.getUint32(0) !== 0x774f4632) return "font/none";
  const length = view.getUint32(8);
  const tables = view.getUint16(12);
  const compressed = view.getUint32(20);
  if (length !== bytes.length || tables === 0 || tables > 200 || compressed === 0 || compressed >= length) return "font/damaged";
  return null;
}
