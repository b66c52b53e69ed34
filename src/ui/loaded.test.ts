/** @jest-environment jsdom */
import { afterEach, describe, expect, jest, test } from "@jest/globals";
import { cleanup, renderHook, waitFor } from "@testing-library/react";
import { partsBy, usePart } from "./loaded";

afterEach(cleanup);

describe("parts that are loaded by name", () => {
  test("once however often they are asked for, again after a failure, and null for a name that has none", async () => {
    let fails = true;
    const load = jest.fn(async () => {
      if (fails) throw new Error("no network");
      return "the wheel";
    });
    const part = partsBy(new Map([["wheel", load]]));
    await expect(part("wheel")).rejects.toThrow("no network");
    fails = false;
    expect(await Promise.all([part("wheel"), part("wheel")])).toEqual(["the wheel", "the wheel"]);
    expect(load).toHaveBeenCalledTimes(2);
    expect(await Promise.all(["constructor", "__proto__", ""].map(part))).toEqual([null, null, null]);
  });
  test("a component waits for its part, tries again by itself, and never shows the part of the name before", async () => {
    let fails = 1;
    const part = partsBy(
      new Map([
        ["slow", async () => ((fails -= 1) < 0 ? "slow" : Promise.reject(new Error("no network")))],
        ["quick", async () => "quick"],
      ]),
    );
    const { result, rerender } = renderHook(({ name }) => usePart(name, part), { initialProps: { name: "slow" } });
    expect(result.current).toBeUndefined();
    await waitFor(() => expect(result.current).toBe("slow"), { timeout: 5_000 });
    rerender({ name: "quick" });
    expect(result.current).toBeUndefined();
    await waitFor(() => expect(result.current).toBe("quick"));
    rerender({ name: "nothing" });
    await waitFor(() => expect(result.current).toBeNull());
  }, 10_000);
});
