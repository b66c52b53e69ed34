import { describe, expect, test } from "@jest/globals";
import { channelId, gameId } from "../../core/kernel/ids";
import { memoryMedia } from "../adapters/memory/media";
import { Films } from "./films";

const channel = channelId("kiln");
const game = gameId("clips.of.ours");
const request = { address: "https://films.example/a.webm", startMs: 0, ms: 5_000, width: 854, height: 480, mostSourceMs: 60_000 };

function set(tell: (command: unknown) => boolean | Promise<boolean> = () => true) {
  const state = { away: false };
  const media = memoryMedia(() => {
    if (state.away) throw new Error("away");
  });
  const told: unknown[] = [];
  const films = new Films({
    channel,
    media,
    now: () => 1,
    tell: async (to, _, command) => {
      const kept = await tell(command);
      if (kept) told.push([to, command]);
      return kept;
    },
  });
  const end = (result: unknown, code = ""): void => {
    for (const [id, job] of media.rows)
      if (job.state === "waiting")
        media.rows.set(id, { ...job, state: code === "" ? "done" : "failed", result, why: code === "" ? null : { code, facts: {} } });
  };
  return { films, media, told, end, state };
}

describe("clips on their way to be made", () => {
  test("ordered once each, and told once each, with what came of it; a game’s name may have dots in it", async () => {
    const { films, told, end } = set();
    expect(await films.order({ game, n: 7, request, source: "", name: "sail" })).toBeNull();
    await films.look();
    expect(told).toEqual([]);
    end({ facts: { ms: 5_000 }, sha: "x" });
    await Promise.all([films.look(), films.look()]);
    await films.look();
    expect(told).toEqual([["clips.of.ours", { do: "filmed", n: 7, facts: { ms: 5_000 }, sha: "x" }]]);
    await films.order({ game, n: 8, request, source: "", name: "torn" });
    end(null, "video/broken");
    await films.look();
    expect(told[1]).toEqual(["clips.of.ours", { do: "not-filmed", n: 8, code: "video/broken", facts: {} }]);
  });
  test("what could not be kept is told again, until it is", async () => {
    let refuse = true;
    const { films, told, end } = set(() => !refuse);
    await films.order({ game, n: 1, request, source: "", name: "a" });
    end({});
    await films.look();
    expect(told).toEqual([]);
    refuse = false;
    await films.look();
    expect(told).toHaveLength(1);
  });
  test("what waits for more than a minute while nothing is made is known", async () => {
    const { films, media, end } = set();
    await films.order({ game, n: 1, request, source: "", name: "a" });
    await films.look();
    expect(films.stalled).toBe(0);
    for (const [id, job] of media.rows) media.rows.set(id, { ...job, createdMs: -70_000 });
    await films.look();
    expect(films.stalled).toBe(1);
    end({});
    await films.look();
    expect(films.stalled).toBe(0);
  });
  test("no room, or no database: the game hears it at once; one that nobody wants is not made", async () => {
    const { films, media, state } = set();
    for (let n = 1; n <= 40; n += 1) await films.order({ game, n, request, source: "", name: "a" });
    expect(await films.order({ game, n: 41, request, source: "", name: "a" })).toMatchObject({
      do: "not-filmed",
      n: 41,
      code: "file/too-many",
    });
    await films.drop(game, 3);
    expect([...media.rows.values()].find((j) => j.about.endsWith(".3"))?.state).toBe("dropped");
    state.away = true;
    expect(await films.order({ game, n: 42, request, source: "", name: "a" })).toMatchObject({ code: "store/away" });
    await films.look();
    await films.drop(game, 4);
  });
});
