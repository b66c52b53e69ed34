import { describe, expect, test } from "@jest/globals";
import type { ChatStanding } from "../ports/chat";
import { type HealthFacts, healthOf } from "./health";

const chat: ChatStanding = { state: "connected", sinceMs: 0, lastError: "", lastTrouble: null, retryAtMs: null, dropped: 0 };
const page = {
  id: "p",
  overlay: "main",
  width: 1920,
  height: 1080,
  hidden: false,
  framesPerSecond: 60,
  late: 0,
  live: 3,
  lowered: 0,
  dimmed: false,
  sinceMs: 0,
  sound: "ready" as const,
  voice: true,
  asked: true,
};
const good: HealthFacts = { chat, channelName: "Kiln", perMinute: 1, databaseAway: false, backlog: 0, lost: 0, pages: [page], lagMs: 2 };
const states = (part: Partial<HealthFacts>): string =>
  healthOf({ ...good, ...part })
    .map((i) => i.state)
    .join(" ");

describe("the health sign", () => {
  test("all is well", () => expect(states({})).toBe("good good good good"));
  test.each<[string, Partial<HealthFacts>, string]>([
    ["no chat set up", { chat: null }, "off good good good"],
    ["chat lost", { chat: { ...chat, state: "waiting", lastError: "Nothing answers." } }, "bad good good good"],
    ["the database away", { databaseAway: true, backlog: 1_200 }, "good bad good good"],
    ["no page open", { pages: [] }, "good good waiting good"],
    ["a page that is to speak and does not say so", { sounds: 1, pages: [{ ...page, voice: false }] }, "good good good waiting good"],
    ["no page that may make sound", { sounds: 1, pages: [{ ...page, voice: false, asked: false }] }, "good good good waiting good"],
    ["a page that stutters", { pages: [{ ...page, framesPerSecond: 12 }] }, "good good waiting good"],
    ["a page that draws less to keep up", { pages: [{ ...page, lowered: 3 }] }, "good good waiting good"],
    ["a page that is dimmed because it flashes", { pages: [{ ...page, dimmed: true }] }, "good good bad good"],
    ["the engine behind", { lagMs: 400 }, "good good good waiting"],
    ["signals that wait long to be kept", { waitingMs: 4_000 }, "good good good bad"],
    ["a clock that was set back", { clockAheadMs: 3_600_000 }, "good good good waiting"],
    ["texts that could not be spoken", { unspoken: { count: 2, why: "speech/none" } }, "good good good good waiting"],
    ["films that wait while none is made", { stalledFilms: 2 }, "good good good good waiting"],
    ["frames that came late, which is told and no fault yet", { pages: [{ ...page, late: 40 }] }, "good good good good"],
  ])("%s", (_, part, expected) => expect(states(part)).toBe(expected));
  test("whatever is wrong says what it means and what to do", () => {
    for (const item of healthOf({ ...good, chat: null, databaseAway: true, backlog: 12, lost: 3_000, pages: [], lagMs: 900 })) {
      expect(item.means).toMatch(/\.$/);
      expect(item.todo).toMatch(/\.$/);
    }
    expect(healthOf({ ...good, databaseAway: true, lost: 3_000 })[1]!.says).toContain("3,000 chat lines could not be kept");
  });
});
