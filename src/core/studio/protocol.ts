import { z } from "zod";

/**
 * What Izzam speaks with a studio (broadcast software, through a bridge that anybody can write): JSON-RPC 2.0 over
 * WebSocket, Izzam being the client. One list of methods; what is published as OpenRPC is made of it.
 */
export const studioProtocol = "izzam-studio-1";
const scene = z.string().min(1).max(80);
const scenesSchema = z.object({
  scenes: z.array(scene).max(200).describe("All scenes by their names, in the studio's own order. Names differ."),
  current: scene.nullable().describe("The one that is on the program picture; null while none is."),
});
export type ScenesTold = z.infer<typeof scenesSchema>;

/** Asked of the studio. */
export const studioMethods = {
  hello: {
    summary: "First of all. The studio may refuse whoever does not bring the secret that was agreed upon.",
    params: z.object({
      protocol: z.literal(studioProtocol),
      secret: z.string().max(400).describe("Empty where none was agreed upon."),
    }),
    result: z.object({ name: z.string().max(80).describe("What the studio calls itself.") }),
  },
  scenes: { summary: "Which scenes there are, and which is on.", params: z.object({}), result: scenesSchema },
  go: {
    summary: "Brings a scene onto the program picture. Answered when it is there.",
    params: z.object({ scene }),
    result: z.object({ current: scene }),
  },
} as const;
/** Told by the studio, unasked. */
export const studioNotifications = {
  changed: { summary: "Whenever another scene is on, whoever did it, and whenever the list of scenes changes.", params: scenesSchema },
} as const;
/** Errors of our own, beside JSON-RPC's. */
export const studioErrors = {
  notAllowed: { code: -32_001, message: "the secret is wrong" },
  noSuchScene: { code: -32_002, message: "there is no such scene" },
  refused: { code: -32_003, message: "the studio will not switch now" },
} as const;

const schemaOf = (schema: z.ZodType): object => {
  const { $schema: _, ...rest } = z.toJSONSchema(schema, { io: "output" });
  return rest;
};
/** Parameters are given by name. */
const paramsOf = (schema: z.ZodObject): object[] =>
  Object.entries(schema.shape).map(([name, of]) => ({ name, required: true, schema: schemaOf(of as z.ZodType) }));

/** The OpenRPC 1.3 document of it. */
export const studioOpenRpc = (): object => ({
  openrpc: "1.3.2",
  info: {
    title: "A studio, as Izzam speaks with it",
    version: "1.0.0",
    description:
      "JSON-RPC 2.0 over WebSocket, one message a text frame. Izzam connects and calls; the studio answers within four seconds, and tells by the notification `changed` what happens on it. Izzam comes back by itself when a connection ends.",
  },
  methods: [
    ...Object.entries(studioMethods).map(([name, { summary, params, result }]) => ({
      name,
      summary,
      paramStructure: "by-name",
      params: paramsOf(params),
      result: { name: "result", schema: schemaOf(result) },
      errors: Object.values(studioErrors),
    })),
    ...Object.entries(studioNotifications).map(([name, { summary, params }]) => ({
      name,
      summary: `Notification from the studio. ${summary}`,
      paramStructure: "by-name",
      params: paramsOf(params),
    })),
  ],
});
