import { describe, expect, test } from "@jest/globals";
import { count, counted, plain, rolesInWords, seconds, valueAt, withValueAt } from "./sentence";

describe("words", () => {
  test("numbers and times are written out the same on every machine", () => {
    expect([0, 999, 1_000, 1_234_567].map(count)).toEqual(["0", "999", "1,000", "1,234,567"]);
    expect([500, 10_000, 1_250].map(seconds)).toEqual(["0.5 s", "10 s", "1.25 s"]);
  });
  test("roles read as one would say them", () => {
    expect(rolesInWords(["viewer", "member"])).toBe("everyone");
    expect(rolesInWords(["member"])).toBe("members");
    expect(rolesInWords(["member", "guest", "moderator"])).toBe("members, guests and moderators");
  });
  test("a sentence without its blanks is plain text", () => {
    expect(
      plain({ id: "x", parts: ["At most ", { path: "cap", label: "Cap", text: "400", field: { kind: "whole", min: 1, max: 9 } }, "."] }),
    ).toBe("At most 400.");
  });
});

describe("settings by path", () => {
  const settings = { a: { b: 1, c: [1] }, d: 2 };
  test("reads and replaces one, leaving the rest as it was", () => {
    expect(valueAt(settings, "a.b")).toBe(1);
    const next = withValueAt(settings, "a.b", 5) as typeof settings;
    expect(next).toEqual({ a: { b: 5, c: [1] }, d: 2 });
    expect(next.a.c).toBe(settings.a.c);
    expect(settings.a.b).toBe(1);
  });
  test("a path that is not there changes and finds nothing", () => {
    expect(withValueAt(settings, "a.x.y", 5)).toEqual(settings);
    expect(valueAt(settings, "__proto__.x")).toBeUndefined();
    expect(valueAt(settings, "d.e")).toBeUndefined();
  });
});

test("so many of a thing are told in the right form", () => {
  expect([0, 1, 2, 1_204].map((n) => counted(n, "viewer"))).toEqual(["0 viewers", "1 viewer", "2 viewers", "1,204 viewers"]);
  expect(counted(3, "entry", "entries")).toBe("3 entries");
});
