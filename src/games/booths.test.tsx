/** @jest-environment jsdom */
import { afterEach, describe, expect, jest, test } from "@jest/globals";
import { cleanup, fireEvent, screen, waitFor, within } from "@testing-library/react";
import { prediction } from "../core/games/prediction/definition";
import { evening as asked, settingsOf as questions } from "../core/games/prediction/evening";
import { raffle } from "../core/games/raffle/definition";
import { evening as draw, settingsOf as rules } from "../core/games/raffle/evening";
import type { Command } from "../core/signals/signal";
import { shown } from "../testing/screen";
import { PredictionBooth } from "./prediction/booth";
import { PredictionHistory } from "./prediction/history";
import { RaffleBooth } from "./raffle/booth";
import { RaffleHistory } from "./raffle/history";
import type { RecordRow } from "./shown";

afterEach(cleanup);
const hands = () => {
  const done: Command[] = [];
  return { done, command: jest.fn((c: Command) => Promise.resolve(done.push(c) > 0)) };
};
const rowsOf = (kept: readonly Readonly<{ kind: string; body: unknown; fromMs: number; toMs: number }>[]) => (kind: string) =>
  Promise.resolve(kept.filter((k) => k.kind === kind).map((k, id): RecordRow => ({ id, viewer: null, ...k })));

describe("a draw in the booth", () => {
  const now = Date.now();
  const open = (part = {}) => {
    const s = rules({ most: 3, claimMs: 60_000, prizes: [{ id: "m", name: "The mug", count: 1, how: "by post" }], ...part });
    const e = draw(s);
    e.command({ do: "open" }, now - 61_000);
    return { e, view: () => raffle.view(s, e.at(), "operator") };
  };
  const booth = (view: Readonly<Record<string, unknown>>, h = hands(), people = [] as never[]) => {
    shown(<RaffleBooth gameId="g" view={view} sinceMs={0} command={h.command} people={people} />);
    return h;
  };
  test("tells how long it is open and who is in; names are taken out and barred with a press", async () => {
    const { e, view } = open();
    e.say("ada", "!in 2", now);
    e.say("bo", "!in", now);
    const h = booth(view());
    expect(screen.getByTestId("raffle-booth").textContent).toMatch(/Open for \d:\d\d/);
    expect(screen.getByTestId("raffle-counts").textContent).toBe("2 viewers · 3 tickets");
    fireEvent.click(screen.getByRole("button", { name: "Who is in" }));
    const list = await screen.findByRole("list", { name: "Newest entrants" });
    expect(within(list).getAllByRole("listitem")[0]?.textContent).toContain("bo");
    fireEvent.click(screen.getByRole("button", { name: "Take ada out" }));
    fireEvent.click(screen.getByRole("button", { name: "Bar bo" }));
    fireEvent.change(screen.getByLabelText("Name of somebody"), { target: { value: " Cy " } });
    fireEvent.click(screen.getByRole("button", { name: "Bar" }));
    // Everybody at once is asked twice.
    fireEvent.click(screen.getByRole("button", { name: "Take everybody out" }));
    fireEvent.click(screen.getByRole("button", { name: "Yes, take everybody out" }));
    expect(h.done).toEqual([
      { do: "remove", viewer: "ada" },
      { do: "bar", viewer: "bo", name: "bo", on: true },
      { do: "bar", name: "Cy", on: true },
      { do: "clear" },
    ]);
  });
  test("takes people in from a list, from who is there, from the top list and from another game", async () => {
    const { view } = open();
    const h = hands();
    const people = [{ id: "spall", words: "who stood on top of Old Spall", load: () => Promise.resolve([{ id: "42", name: "Ada" }]) }];
    shown(<RaffleBooth gameId="g" view={view()} sinceMs={0} command={h.command} people={people} />);
    fireEvent.click(screen.getByRole("button", { name: "Add people" }));
    const area = await screen.findByLabelText("Names, one a line, with a comma and how many tickets");
    fireEvent.change(area, { target: { value: "ada, 2\nbo; 3" } });
    fireEvent.change(area, { target: { value: "ada, 2\nbo" } });
    fireEvent.click(screen.getByRole("button", { name: "Add 2 viewers" }));
    await waitFor(() => expect(h.done).toHaveLength(1));
    // The dialog closes in its own time, and hides all else until then.
    fireEvent.click(await screen.findByRole("button", { name: "Add people" }, { timeout: 10_000 }));
    await screen.findByText("Everyone who stood on top of Old Spall");
    for (const button of screen.getAllByRole("button", { name: "Add" })) fireEvent.click(button);
    await waitFor(() => expect(h.done).toHaveLength(4));
    expect(h.done).toEqual([
      {
        do: "add",
        viewers: [
          { name: "ada", tickets: 2 },
          { name: "bo", tickets: 1 },
        ],
      },
      { do: "add-present", minutes: 10, tickets: 1 },
      { do: "add-top", count: 10, tickets: 1 },
      { do: "add", viewers: [{ id: "42", name: "Ada", tickets: 1 }] },
    ]);
  });
  test("shows winners with their prize and their time; closed with nobody drawn it warns", async () => {
    const { e, view } = open();
    e.say("ada", "!in", now);
    e.command({ do: "lock" }, now);
    booth(view());
    expect(screen.getByText("Nobody was drawn yet.")).toBeTruthy();
    cleanup();
    e.command({ do: "draw" }, now);
    booth(view());
    expect(screen.getByRole("list", { name: "Winners" }).textContent).toMatch(/ada.*is to answer: \d:\d\d, The mug/);
    expect(raffle.asks?.(view())[0]).toMatchObject({ words: "ada won The mug and is to answer in chat", main: { label: "Claimed" } });
    cleanup();
    e.say("ada", "me", now + 1_000);
    e.command({ do: "close" }, now + 2_000);
    shown(<RaffleHistory view={view()} load={rowsOf(e.rows)} command={() => Promise.resolve()} />);
    expect((await screen.findByRole("listitem")).textContent).toContain("Last week’s mug 1 viewer, 1 ticketada (The mug)");
  });
});

describe("a prediction in the booth", () => {
  const s = questions({ templates: [{ id: "lid", title: "Does the lid fit?", outcomes: ["At once", "Never"], openMs: 60_000 }] });
  test("is asked from nothing, or from what is kept", async () => {
    const h = hands();
    const e = asked();
    shown(<PredictionBooth gameId="g" view={prediction.view(s, e.at(), "operator")} sinceMs={0} command={h.command} people={[]} />);
    fireEvent.click(screen.getByRole("button", { name: "Ask something else…" }));
    fireEvent.change(await screen.findByLabelText("The question"), { target: { value: "Will it hold?" } });
    fireEvent.change(screen.getByLabelText("Outcomes, set apart by commas"), { target: { value: "Yes, yes" } });
    expect(screen.getByText("Two outcomes read the same.")).toBeTruthy();
    expect(screen.getByRole("button", { name: "Open it" })).toHaveProperty("disabled", true);
    fireEvent.change(screen.getByLabelText("Outcomes, set apart by commas"), { target: { value: "Yes, No" } });
    fireEvent.click(screen.getByRole("button", { name: "Open it" }));
    await waitFor(() => expect(h.done).toHaveLength(1));
    fireEvent.click(await screen.findByRole("button", { name: "Ask something else…" }));
    fireEvent.click(await screen.findByRole("button", { name: "Open Does the lid fit?" }));
    await waitFor(() => expect(h.done).toHaveLength(2));
    expect(h.done).toEqual([
      { do: "ask", title: "Will it hold?", outcomes: ["Yes", "No"], openMs: 120_000 },
      { do: "open", template: "lid" },
    ]);
  });
  test("tells what backs each outcome, what may be told, and what came; a result that was taken back is kept", async () => {
    const e = asked();
    e.open(Date.now());
    e.say("ada", "!back A 300", Date.now());
    e.say("bo", "!back B 100", Date.now());
    const view = () => prediction.view(s, e.at(), "operator");
    shown(<PredictionBooth gameId="g" view={view()} sinceMs={0} command={hands().command} people={[]} />);
    expect(screen.getByTestId("prediction-booth").textContent).toMatch(/Open, locks in \d:\d\d/);
    expect(screen.getByRole("list", { name: "Outcomes" }).textContent).toBe("AIt survives300 · 1.33 ×BIt cracks100 · 4.00 ×");
    cleanup();
    e.command({ do: "lock" });
    expect(prediction.choices?.(view()).map((c) => [c.label, c.command, c.sure])).toEqual([
      ["A: It survives", { do: "result", outcome: "A" }, true],
      ["B: It cracks", { do: "result", outcome: "B" }, true],
    ]);
    e.result("A");
    e.settle();
    e.command({ do: "undo" });
    e.settle();
    e.result("B");
    e.settle();
    shown(<PredictionHistory view={view()} load={rowsOf(e.rows)} command={() => Promise.resolve()} />);
    const rows = (await screen.findAllByRole("listitem")).map((r) => r.textContent);
    expect(rows.join("\n")).toContain("B It cracks, said by kilnkeeper; 1 viewer shared 400");
    expect(rows.join("\n")).toContain("It survives was taken back");
  });
});
