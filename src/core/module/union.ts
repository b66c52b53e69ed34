import type { z } from "zod";

/** The commands that a module describes, as one type: the module's step reads what the engine has parsed by them. */
export type CommandUnion<C extends Readonly<Record<string, z.ZodType>>> = {
  [K in keyof C & string]: Readonly<{ do: K }> & Readonly<z.infer<C[K]>>;
}[keyof C & string];
