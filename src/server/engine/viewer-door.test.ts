import { expect, test } from "@jest/globals";
import { channelId } from "../../core/kernel/ids";
import { refused } from "../../core/kernel/refusal";
import { memoryEngineStore } from "../adapters/memory/engine-store";
import { ViewerDoor } from "./viewer-door";

const [kiln, other] = [channelId("kiln"), channelId("other")];
const ada = { id: "ada", name: "Ada", roles: [] };
const [before, after] = ["a".repeat(64), "b".repeat(64)];

test("a proven page goes on under another token; the one before is nobody's, and its pages are closed", async () => {
  const store = memoryEngineStore();
  const left: string[] = [];
  const door = new ViewerDoor({
    runners: new Map(),
    clock: { now: () => 1_000, after: () => () => undefined } as never,
    store,
    face: () => "",
    left: (hash) => void left.push(hash),
    absent: () => refused("channel/unknown"),
  });
  await store.addViewerSession(kiln, { tokenHash: before, viewer: ada, nowMs: 0, untilMs: 9_000 });
  // Not in another channel, and not by a token that nobody has.
  expect(await door.renews(other, before, after)).toMatchObject({ ok: false, refusal: { code: "viewer/not-proven" } });
  expect(await door.renews(kiln, "c".repeat(64), after)).toMatchObject({ ok: false });
  expect([await door.of(kiln, before), left]).toEqual([ada, []]);
  expect(await door.renews(kiln, before, after)).toEqual({ ok: true, value: null });
  expect([await door.of(kiln, before), await door.of(kiln, after), left]).toEqual([null, ada, [before]]);
  // Asked twice, as by two tabs: the second hears no, and nothing changes.
  expect(await door.renews(kiln, before, "d".repeat(64))).toMatchObject({ ok: false });
  expect(await door.of(kiln, after)).toEqual(ada);
});
