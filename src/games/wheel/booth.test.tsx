/** @jest-environment jsdom */
import { afterEach, describe, expect, test } from "@jest/globals";
import { cleanup, screen, within } from "@testing-library/react";
import { emoteIndex } from "../../core/chat/emotes";
import { wheel } from "../../core/games/wheel/definition";
import { freshWheel } from "../../core/games/wheel/rules";
import { newSegment, type WheelDurable, type WheelSettings } from "../../core/games/wheel/settings";
import { bareContext, type Kept } from "../../core/module/module";
import { shown } from "../../testing/screen";
import type { RecordRow } from "../shown";
import { WheelBooth } from "./booth";
import { WheelHistory } from "./history";

afterEach(cleanup);
const settings: WheelSettings = {
  ...wheel.defaults,
  leaves: true,
  segments: ["Celadon", "Tenmoku", "Ash", "Straw", "Cobalt", "Oatmeal", "Sea green"].map((l, i) => newSegment(`s${i}`, l, i)),
};
/** A wheel by its real rules: so many spins to their end, then perhaps one that turns. */
function evening(spins: number, turning = false) {
  let durable: WheelDurable = freshWheel();
  const kept: Kept[] = [];
  const now = Date.now();
  const step = (signal: object, atMs: number): void => {
    const outcome = wheel.step(
      { settings, durable, transient: null },
      { id: "x", seq: kept.length * 2 + 1, atMs, ...signal } as never,
      bareContext(emoteIndex([])),
    );
    durable = outcome.durable;
    kept.push(...(outcome.kept ?? []));
  };
  const viewer = { id: "ada", name: "Ada", roles: [] };
  const spin = (atMs: number): void => step({ kind: "command", gameId: "w", by: "weaver", viewer, command: { do: "spin" } }, atMs);
  step({ kind: "timer", moduleId: "w" }, now - 900_000);
  for (let i = 0; i < spins; i += 1) {
    spin(now - 800_000 + i * 60_000);
    step({ kind: "timer", moduleId: "w" }, now - 800_000 + i * 60_000 + settings.spinMs);
  }
  if (turning) spin(now);
  return { view: wheel.view(settings, durable, "operator"), kept };
}
const booth = (view: Readonly<Record<string, unknown>>) =>
  shown(<WheelBooth gameId="w" view={view} sinceMs={0} command={() => Promise.resolve(true)} people={[]} />);
const text = (): string => screen.getByTestId("wheel-booth").textContent ?? "";

describe("the wheel in the booth", () => {
  test("before anybody spun it: that, and the likeliest of what may come, with how many more there are", () => {
    booth(evening(0).view);
    expect(text()).toContain("Nobody has spun it yet.");
    expect(text()).toContain("Celadon14.29 %");
    expect(text()).toContain("and 2 more segments");
  });
  test("while it turns: for whom, and for how long; never what comes", () => {
    const { view } = evening(0, true);
    booth(view);
    expect(text()).toMatch(/It turns for Ada: [89] s/);
  });
  test("after it: what came, for whom, and what came before; what has left is no chance any more", () => {
    const { view, kept } = evening(3);
    booth(view);
    const labels = kept.map((k) => (k.body as { label: string }).label).reverse();
    expect(text()).toContain(`${labels[0]}, for Ada`);
    expect(text()).toContain(`Before: ${labels[1]}, ${labels[2]}`);
    expect(text()).toContain("25.00 %");
  });
  test("all gone: what to do", () => {
    booth(evening(7).view);
    expect(text()).toContain("Every segment was drawn: bring them back.");
  });
});

describe("what happened with a wheel", () => {
  const history = (kept: readonly Kept[], abandoned: readonly RecordRow[] = []) => {
    const rows = [...kept].reverse().map((k, i): RecordRow => ({ id: i, viewer: k.viewer, fromMs: k.fromMs, toMs: k.toMs, body: k.body }));
    return shown(
      <WheelHistory
        view={undefined}
        load={(kind) => Promise.resolve(kind === "spin" ? rows : abandoned)}
        command={() => Promise.resolve()}
      />,
    );
  };
  test("each spin with where it is checked, and how often each came beside what was expected", async () => {
    history(evening(4).kept);
    const list = await screen.findByRole("list", { name: "Spins" });
    const items = await within(list).findAllByRole("listitem");
    expect(items).toHaveLength(4);
    expect(
      within(items[0] as HTMLElement)
        .getByRole("link", { name: "Check it" })
        .getAttribute("href"),
    ).toMatch(/^\/rounds\/w\.4\./);
    const rows = within(screen.getByRole("table", { name: "How often each segment came" }))
      .getAllByRole("row")
      .slice(1);
    const numbers = rows.map((r) =>
      within(r)
        .getAllByRole("cell")
        .map((c) => c.textContent),
    );
    expect(numbers.reduce((sum, [, came]) => sum + Number(came), 0)).toBe(4);
    expect(numbers.reduce((sum, [, , expected]) => sum + Number(expected), 0)).toBeCloseTo(4, 0);
  });
  test("promises that were abandoned stand among them, with why", async () => {
    const gone = { id: 9, viewer: null, fromMs: 1, toMs: Date.now(), body: { round: "w.9.a", n: 9, why: "settings" } };
    history([], [gone]);
    expect(await screen.findByText(/a promise was abandoned: the segments were changed/)).toBeTruthy();
  });
  test("nothing yet: what will stand here", async () => {
    history([]);
    expect(await screen.findByText(/Nobody has spun it yet\. Each spin stands here/)).toBeTruthy();
  });
});
