/** @jest-environment jsdom */
import { afterEach, describe, expect, test } from "@jest/globals";
import { cleanup, screen } from "@testing-library/react";
import type { Role } from "../core/signals/names";
import { ChakraProvider } from "@chakra-ui/react";
import { kept, shown } from "../testing/screen";
import { system } from "./theme";
import { Blank } from "./blank";
import { CooldownField } from "./cooldown-field";
import { ListField } from "./list-field";
import { NumberField } from "./number-field";
import { numberProblem } from "./number-text";
import { Pick } from "./pick";
import { RolesBlank } from "./roles-blank";
import { TemplateField } from "./template-field";

afterEach(cleanup);
const field = (label: string): HTMLInputElement => screen.getByLabelText(label);
const said = (): string | null => screen.queryByRole("alert")?.textContent ?? null;

describe("a number in a sentence", () => {
  const number = (min = 10, max = 2_000) =>
    kept(400, (value, onSet) => <NumberField label="Most" value={value} min={min} max={max} onSet={onSet} />);
  test("what is allowed is taken as it is typed; what is not is told, and the last good value stays", async () => {
    const { user, set } = number();
    await user.click(field("Most"));
    await user.keyboard("5000");
    expect(set.mock.calls.map(([n]) => n)).toEqual([50, 500]);
    expect([said(), field("Most").getAttribute("aria-invalid")]).toEqual(["From 10 to 2,000.", "true"]);
    await user.tab();
    expect([field("Most").value, said()]).toEqual(["500", null]);
  });
  test("Escape brings back what stood there, however much of it was taken meanwhile", async () => {
    const { user, set } = number();
    await user.click(field("Most"));
    await user.keyboard("5000{Escape}");
    expect([field("Most").value, said(), set.mock.lastCall]).toEqual(["400", null, [400]]);
  });
  test("Escape on what was not changed is left to what the field stands in", async () => {
    const heard: string[] = [];
    const { user } = kept(400, (value, onSet) => (
      <div onKeyDown={(e) => heard.push(e.key)}>
        <NumberField label="Most" value={value} min={1} max={900} onSet={onSet} />
      </div>
    ));
    await user.click(field("Most"));
    await user.keyboard("{Escape}7{Escape}");
    expect(heard.filter((k) => k === "Escape")).toHaveLength(1);
  });
  test("arrows go by one, with Shift by ten, and stop at the ends", async () => {
    const { user, set } = number(395, 405);
    await user.click(field("Most"));
    await user.keyboard("{ArrowUp}{ArrowDown}{ArrowDown}");
    expect(set.mock.calls.map(([n]) => n)).toEqual([401, 400, 399]);
    await user.keyboard("{Shift>}{ArrowUp}{/Shift}{ArrowUp}");
    expect([field("Most").value, set.mock.lastCall]).toEqual(["405", [405]]);
  });
  test("Enter is done with it", async () => {
    const { user } = number();
    await user.click(field("Most"));
    await user.keyboard("20{Enter}");
    expect([document.activeElement === field("Most"), field("Most").value]).toEqual([false, "20"]);
  });
  test("seconds are kept as milliseconds, with a point or a comma", async () => {
    const { user, set } = kept(1_500, (value, onSet) => <CooldownField ms={value} mostMs={60_000} onSet={onSet} />);
    expect(field("Cooldown").value).toBe("1.5");
    await user.click(field("Cooldown"));
    await user.keyboard("0,25");
    expect(set.mock.lastCall).toEqual([250]);
    await user.clear(field("Cooldown"));
    expect(said()).toBe("A number goes here.");
    await user.keyboard("61");
    expect(said()).toBe("From 0 to 60 s.");
  });
});

describe("what a number may be", () => {
  const limits = { min: 10, max: 2_000_000 };
  test.each([
    ["10", null],
    ["2,000,000", null],
    ["1 000", null],
    ["1,000", null],
    ["9", "From 10 to 2,000,000."],
    ["-50", "From 10 to 2,000,000."],
    ["10.5", "Whole numbers only."],
    ["", "A number goes here."],
    ["  ", "A number goes here."],
    ["ten", "A number goes here."],
    ["1e999", "A number goes here."],
    ["NaN", "A number goes here."],
  ])("%j", (typed, problem) => expect(numberProblem(typed, limits)).toBe(problem));
  test("beyond what can be counted exactly it is refused, whatever the limit", () =>
    expect(numberProblem("9007199254740993", { min: 0, max: Number.MAX_VALUE })).not.toBeNull());
});

describe("blanks of every kind", () => {
  test("money is written in its own digits", async () => {
    const { user, set } = kept<unknown>(150, (value, onSet) => (
      <Blank
        blank={{ path: "p", label: "Price", text: "", field: { kind: "money", currency: "EUR", min: 0, max: 10_000 } }}
        value={value}
        onChange={onSet}
      />
    ));
    expect(field("Price").value).toBe("1.50");
    await user.click(field("Price"));
    await user.keyboard("2.75");
    expect(set.mock.lastCall).toEqual([275]);
    await user.clear(field("Price"));
    await user.keyboard("100.01");
    expect(said()).toBe("From 0 to 100 EUR.");
  });
  test("one of two, and one of many", async () => {
    const toggle = { path: "t", label: "Singles", text: "", field: { kind: "toggle" as const, on: "fly", off: "stay away" } };
    const { user, set } = kept<unknown>(false, (value, onSet) => <Blank blank={toggle} value={value} onChange={onSet} />);
    await user.selectOptions(screen.getByLabelText("Singles"), "fly");
    expect(set.mock.lastCall).toEqual([true]);
    cleanup();
    const options = [
      { value: "a", words: "the first" },
      { value: "b", words: "the second" },
    ];
    const pick = kept("a", (value, onSet) => <Pick label="Which" value={value} options={options} onSet={onSet} />);
    await pick.user.selectOptions(screen.getByLabelText("Which"), "the second");
    expect(pick.set.mock.calls).toEqual([["b"]]);
  });
  test("who may: everyone includes the others, and nobody at all is no choice", async () => {
    const { user, set } = kept<Role[]>(["moderator"], (value, onSet) => <RolesBlank label="Who may" roles={value} onSet={onSet} />);
    await user.click(screen.getByRole("button", { name: "Who may: one role" }));
    await user.click(await screen.findByRole("checkbox", { name: "moderators" }));
    expect(set.mock.lastCall).toEqual([["streamer"]]);
    await user.click(screen.getByRole("checkbox", { name: "everyone" }));
    expect(set.mock.lastCall?.[0]).toContain("viewer");
    expect(screen.getByRole<HTMLInputElement>("checkbox", { name: "members" })).toMatchObject({ checked: true, disabled: true });
  });
});

describe("a text with variables", () => {
  const text = (first: string) =>
    kept(first, (value, onSet) => <TemplateField label="Text" value={value} variables={["viewer", "amount"]} onSet={onSet} />);
  test("shows an example, takes variables by chip where the cursor stands, and tells what can't be saved", async () => {
    const { user, set } = text("Thank you, ");
    await user.click(field("Text"));
    await user.keyboard("{End}");
    await user.click(screen.getByRole("button", { name: "Put in: viewer" }));
    expect(set.mock.lastCall).toEqual(["Thank you, {viewer}"]);
    expect(screen.getByText("→ Thank you, mossy_teapot")).toBeTruthy();
    await user.clear(field("Text"));
    await user.type(field("Text"), "{{{{months}");
    expect(said()).toBe("A brace is missing or one too many.");
    await user.clear(field("Text"));
    await user.type(field("Text"), "{{months}");
    expect(said()).toBe("“months” is no variable here.");
  });
  test("a chip never cuts what is there in the middle of a character", async () => {
    const { user, set } = text("🔥".repeat(149));
    await user.click(screen.getByRole("button", { name: "Put in: viewer" }));
    const after = set.mock.lastCall?.[0] ?? "";
    expect([after.length <= 300, /\p{Surrogate}/u.test(after)]).toEqual([true, false]);
  });
});

describe("several words in one field", () => {
  const list = (apart: "commas" | "spaces" = "commas") =>
    kept<readonly string[]>(["kiln", "glaze"], (value, onSet) => (
      <ListField label="Words" list={value} shape={{ apart, most: 3, letters: 8 }} onSet={onSet} />
    ));
  test("are taken when one leaves it: half a word is never saved", async () => {
    const { user, set } = list();
    await user.click(field("Words"));
    await user.keyboard(", raku");
    expect(set).not.toHaveBeenCalled();
    await user.tab();
    expect(set.mock.calls).toEqual([[["kiln", "glaze", "raku"]]]);
    expect(field("Words").value).toBe("kiln, glaze, raku");
  });
  test("left as they were, nothing is saved; cut to what may be, that is shown", async () => {
    const { user, set } = list("spaces");
    await user.click(field("Words"));
    await user.tab();
    expect(set).not.toHaveBeenCalled();
    await user.click(field("Words"));
    await user.keyboard(" a b averylongword");
    await user.tab();
    expect(set.mock.calls).toEqual([[["kiln", "glaze", "a"]]]);
    expect(field("Words").value).toBe("kiln glaze a");
  });
  test("what was changed elsewhere is shown anew", () => {
    const one = (words: readonly string[]) => (
      <ListField label="Words" list={words} shape={{ apart: "commas", most: 9, letters: 9 }} onSet={() => undefined} />
    );
    const { rerender } = shown(one(["a"]));
    rerender(<ChakraProvider value={system}>{one(["a", "b"])}</ChakraProvider>);
    expect(field("Words").value).toBe("a, b");
  });
});
