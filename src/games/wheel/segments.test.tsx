/** @jest-environment jsdom */
import { afterEach, beforeAll, describe, expect, test } from "@jest/globals";
import { cleanup, screen, within } from "@testing-library/react";
import { withValueAt } from "../../core/words/sentence";
import { newSegment, wheelDefaults, type WheelSettings } from "../../core/games/wheel/settings";
import { kept } from "../../testing/screen";
import { WheelSegments } from "./segments";

beforeAll(() => {
  // Swatches are painted; jsdom has no canvas.
  HTMLCanvasElement.prototype.getContext = (() => null) as never;
});
afterEach(cleanup);
const three: WheelSettings = { ...wheelDefaults, segments: ["Celadon", "Tenmoku", "Ash"].map((l, i) => newSegment(`s${i}`, l, i)) };
const editor = (first = three) =>
  kept(first, (settings, onSet) => (
    <WheelSegments
      settings={settings}
      sprites={[]}
      onChange={(path, value) => onSet(withValueAt(settings, path, value) as WheelSettings)}
    />
  ));
const labels = (): string[] => screen.getAllByLabelText<HTMLInputElement>(/^Label of segment/).map((i) => i.value);
const chances = (): (string | null)[] => [...document.querySelectorAll("[data-chance]")].map((e) => e.textContent);

describe("the segments of a wheel", () => {
  test("each has its exact chance beside its weight, and both change together", async () => {
    const { user } = editor();
    expect(chances()).toEqual(["33.34 %", "33.33 %", "33.33 %"]);
    await user.clear(screen.getByLabelText("Weight of Celadon"));
    await user.type(screen.getByLabelText("Weight of Celadon"), "2");
    expect(chances()).toEqual(["50.00 %", "25.00 %", "25.00 %"]);
  });
  test("a new one can be named at once; a copy stands beside what it was made from; one can be taken out", async () => {
    const { user } = editor();
    await user.click(screen.getByRole("button", { name: "Add" }));
    await user.keyboard("Straw");
    expect(labels()).toEqual(["Celadon", "Tenmoku", "Ash", "Straw"]);
    await user.click(screen.getByRole("button", { name: "Copy Celadon" }));
    expect(labels()).toEqual(["Celadon", "Celadon", "Tenmoku", "Ash", "Straw"]);
    await user.click(screen.getByRole("button", { name: "Take Tenmoku out" }));
    expect(labels()).toEqual(["Celadon", "Celadon", "Ash", "Straw"]);
  });
  test("the last one stays", () => {
    editor({ ...three, segments: [newSegment("a", "Only", 0)] });
    expect(screen.getByRole("button", { name: "Take Only out" }).hasAttribute("disabled")).toBe(true);
  });
  test("lines are pasted, with their weights, to the others or in their place", async () => {
    const { user } = editor();
    await user.click(screen.getByRole("button", { name: "Paste lines" }));
    await user.click(screen.getByLabelText("Lines, one for each segment"));
    await user.paste("Straw; 3\r\n\r\n  Cobalt\t2 \nSea green, deep; very");
    await user.click(screen.getByRole("button", { name: "Add 3 segments" }));
    expect(labels()).toEqual(["Celadon", "Tenmoku", "Ash", "Straw", "Cobalt", "Sea green, deep; very"]);
    expect(screen.getByLabelText<HTMLInputElement>("Weight of Cobalt").value).toBe("2");
    await user.click(screen.getByRole("button", { name: "Paste lines" }));
    await user.click(screen.getByLabelText("Lines, one for each segment"));
    await user.paste("One\nTwo");
    await user.click(screen.getByRole("button", { name: "Put them in the place of all" }));
    expect(labels()).toEqual(["One", "Two"]);
  });
  test("five thousand lines: what finds no room is told before anything is taken, and the list stays quick", async () => {
    const { user, set } = editor();
    await user.click(screen.getByRole("button", { name: "Paste lines" }));
    await user.click(screen.getByLabelText("Lines, one for each segment"));
    await user.paste(Array.from({ length: 5_000 }, (_, i) => `Line ${i}`).join("\n"));
    expect(screen.getByText("4,503 lines found no room: a wheel has at most 500 segments.")).toBeTruthy();
    await user.click(screen.getByRole("button", { name: "Add 497 segments" }));
    expect((set.mock.lastCall?.[0] as WheelSettings).segments).toHaveLength(500);
    expect(within(screen.getByRole("list", { name: "Segments" })).getAllByRole("listitem")).toHaveLength(40);
    expect(screen.getByRole("button", { name: "Add" }).hasAttribute("disabled")).toBe(true);
    expect(screen.getByRole("button", { name: "Show all 500" })).toBeTruthy();
  });
});
