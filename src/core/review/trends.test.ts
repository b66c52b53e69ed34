import { describe, expect, test } from "@jest/globals";
import { measureOf, trendInWords, trendOf, type ShowFigures } from "./trends";

describe("shows compared with those before", () => {
  test("by the middle one of each, so that one mad evening is no trend", () => {
    expect(trendOf([10, 11, 12, 13, 14, 20, 21, 9_000, 22, 19])).toEqual({ now: 21, before: 12, shows: 5, change: 0.75 });
    expect(trendOf([1, 2, 100, 3, 4])).toMatchObject({ shows: 2, now: 3.5, before: 51 });
    expect([trendOf([]), trendOf([5])]).toEqual([null, null]);
  });
  test("in words", () => {
    expect(trendInWords(trendOf([10, 15]), "messages an hour")).toBe(
      "50 % more than before: 15 messages an hour, and 10 in the one before.",
    );
    expect(trendInWords(trendOf([100, 100, 98, 99]), "people who wrote")).toBe(
      "About as before: 98.5 people who wrote, and 100 in the 2 before.",
    );
    expect(trendInWords(trendOf([0, 0, 4, 4]), "people")).toBe("The last 2 shows: 4 people, and 0 in the 2 before.");
    expect(trendInWords(trendOf([500, 700]), "in tips", (n) => `${n / 100}.00 EUR`)).toContain("7.00 EUR in tips, and 5.00 EUR in");
    expect(trendInWords(trendOf([3]), "people")).toMatch(/no trend yet/);
  });
  test("by the hour, and a show without length divides nothing", () => {
    const show = { hours: 2, messages: 300, people: 7 } as ShowFigures;
    expect([measureOf("messages").of(show), measureOf("people").of(show), measureOf("messages").of({ ...show, hours: 0 })]).toEqual([
      150, 7, 0,
    ]);
    // Its log is gone: nobody knows, and nothing is made up.
    expect(measureOf("messages").of({ ...show, messages: null })).toBeNull();
    expect(measureOf("constructor" as "people").id).toBe("messages");
  });
});
