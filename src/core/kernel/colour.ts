import { z } from "zod";

export const colourSchema = z.string().regex(/^#[0-9a-fA-F]{6}$/, "A colour is # and six digits or letters a to f.");
