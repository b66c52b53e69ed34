import { expect, test } from "@jest/globals";
import { Gate } from "./gate";

test("so many at once, the rest in their order; one that fails lets the next go on", async () => {
  const gate = new Gate(2, 3);
  const begun: number[] = [];
  let most = 0;
  let now = 0;
  const all = await Promise.allSettled(
    Array.from({ length: 9 }, (_, i) =>
      gate.run(async () => {
        begun.push(i);
        most = Math.max(most, (now += 1));
        await new Promise((resolve) => setTimeout(resolve, 3));
        now -= 1;
        if (i % 3 === 0) throw new Error("no");
        return i;
      }),
    ),
  );
  expect([most, begun]).toEqual([2, [0, 1, 2, 3, 4, 5, 6, 7, 8]]);
  expect(all.map((r) => r.status === "fulfilled")).toEqual([false, true, true, false, true, true, false, true, true]);
  expect(gate.full).toBe(false);
});
test("it is full when as many wait as may", () => {
  const gate = new Gate(1, 2);
  for (let i = 0; i < 3; i += 1) void gate.run(() => new Promise(() => undefined));
  expect(gate.full).toBe(true);
});
