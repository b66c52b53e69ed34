import { describe, expect, test } from "@jest/globals";
import { wellFormed } from "../kernel/text";
import { cloudEventSchema, eventTypes, jsonSchemaOf, signalFrom } from "./events";

const event = (type: string, data: unknown) => cloudEventSchema.parse({ specversion: "1.0", id: "1", source: "urn:test", type, data });
const viewer = { id: "ada", name: "Ada" };

describe("what a platform sends", () => {
  test("each type becomes its signal", () => {
    expect(signalFrom(event("app.izzam.follow.v1", { viewer }))).toEqual({ signal: { kind: "follow", viewer: { ...viewer, roles: [] } } });
    expect(signalFrom(event("app.izzam.reaction.v1", { viewer, reaction: "sherd", count: 3, valueEach: 10 }))).toMatchObject({
      signal: { kind: "reaction", count: 3, value: 30 },
    });
    expect(signalFrom(event("app.izzam.ended.v1", {}))).toEqual({ signal: { kind: "ended", viewer: null } });
  });
  test("a giver who is left out, or null, stays unknown", () => {
    expect(signalFrom(event("app.izzam.gift.v1", { count: 5 }))).toMatchObject({ signal: { viewer: null, count: 5 } });
    expect(signalFrom(event("app.izzam.tip.v1", { viewer: null, amountMinor: 500, currency: "EUR" }))).toMatchObject({
      signal: { viewer: null },
    });
  });
  test.each<[string, string, unknown]>([
    ["an unknown type", "app.other.follow", { viewer }],
    ["a follow by nobody", "app.izzam.follow.v1", {}],
    ["an amount of nothing", "app.izzam.tip.v1", { viewer, amountMinor: 0, currency: "EUR" }],
    ["a negative amount", "app.izzam.tip.v1", { viewer, amountMinor: -5, currency: "EUR" }],
    ["2^53", "app.izzam.tip.v1", { viewer, amountMinor: 2 ** 53, currency: "EUR" }],
    ["half a cent", "app.izzam.tip.v1", { viewer, amountMinor: 0.5, currency: "EUR" }],
    ["an amount in words", "app.izzam.tip.v1", { viewer, amountMinor: "500", currency: "EUR" }],
    ["a currency that is none", "app.izzam.tip.v1", { viewer, amountMinor: 500, currency: "euro" }],
    ["data that is a list", "app.izzam.gift.v1", [1, 2]],
    ["a name of 5,000 letters", "app.izzam.follow.v1", { viewer: { id: "a", name: "a".repeat(5_000) } }],
    ["a text of a megabyte", "app.izzam.tip.v1", { viewer, amountMinor: 5, currency: "EUR", text: "x".repeat(1_000_000) }],
    ["an id with half a character in it", "app.izzam.follow.v1", { viewer: { id: wellFormed("ada\ud83d"), name: "Ada" } }],
    ["a role that is none", "app.izzam.follow.v1", { viewer: { ...viewer, roles: ["king"] } }],
  ])("%s is a problem with its place, never thrown", (_, type, data) => {
    const made = signalFrom(event(type, data));
    expect("problem" in made && made.problem.why.length).toBeGreaterThan(5);
  });
  test("worth beyond what a number holds is cut off there", () => {
    const made = signalFrom(event("app.izzam.reaction.v1", { viewer, reaction: "x", count: 1e9, valueEach: 1e9 }));
    expect(made).toMatchObject({ signal: { value: Number.MAX_SAFE_INTEGER } });
  });
  test("each type has a JSON Schema that names its envelope and its data", () => {
    expect(eventTypes).toHaveLength(11);
    for (const type of eventTypes) {
      const schema = jsonSchemaOf(type) as { properties: { type: { const: string }; data: { type: string } }; required: string[] };
      expect(schema.properties.type.const).toBe(type);
      expect(schema.properties.data.type).toBe("object");
      expect(schema.required).toContain("id");
    }
  });
});
