import { describe, expect, test } from "@jest/globals";
import { asked, bought, fromForm, placeIn, pointsFor } from "./asking";
import { evening, factsOf, viewer } from "./evening";
import { clips } from "./definition";
import { clipsDefaults } from "./settings";

const at = "https://films.example/sail.webm";
const codeOf = (outcome: { notes: readonly { refusal?: { code: string }; did?: string }[] }): string =>
  outcome.notes[0]?.refusal?.code ?? outcome.notes[0]?.did ?? "";

describe("what is asked for", () => {
  test.each<[string, object | null]>([
    [`${at} 0:07 12s my first sail`, { address: at, startMs: 7_000, ms: 12_000, title: "my first sail" }],
    [`look ${at}#t=7,19`, { address: at, startMs: 7_000, ms: 12_000, title: "" }],
    [`${at} 1:02:03.5`, { address: at, startMs: 3_723_500, ms: null, title: "" }],
    [`${at} 9:75`, { address: at, startMs: 0, ms: null, title: "9:75" }],
    [`${at} 0s`, { address: at, startMs: 0, ms: 1_000, title: "" }],
    [`${at}#t=npt:19,7`, { address: at, startMs: 19_000, ms: null, title: "" }],
    ["0:07 12s", null],
    ["javascript:alert(1)", null],
    ["ftp://films.example/x", null],
    [`https://${"x".repeat(3_000)}.example/`, null],
  ])("%s", (text, what) => expect(asked(text)).toEqual(what));
  test("places and forms that can’t be read are told apart", () => {
    expect([placeIn("0:07"), placeIn("62:03"), placeIn("1:99"), placeIn("7")]).toEqual([7_000, 3_723_000, null, null]);
    const form = { address: at, source: "", from: "0:07", seconds: "12", title: "" };
    expect(fromForm(form)).toEqual({ address: at, startMs: 7_000, ms: 12_000, title: "" });
    expect(fromForm({ ...form, from: "x" })).toMatchObject({ code: "clips/no-place" });
    expect(fromForm({ ...form, seconds: "-1" })).toMatchObject({ code: "clips/no-length" });
    expect(fromForm({ ...form, address: "no" })).toMatchObject({ code: "clips/no-film-named" });
    expect(fromForm({ ...form, address: "no", source: "a".repeat(64) })).toMatchObject({ address: "", startMs: 7_000 });
  });
  test("seconds: floor(amount ÷ price), at most the longest; what is left stays the sender’s", () => {
    const s = { ...clipsDefaults, tips: { perSecond: 30, least: 100 }, mostMs: 30_000 };
    expect(bought(s, 99, 0)).toMatchObject({ code: "clips/too-little", facts: { takes: 100 } });
    expect(bought(s, 100, 0)).toEqual({ seconds: 3, paid: 90, rest: 10 });
    expect(bought(s, 99, 10)).toEqual({ seconds: 3, paid: 90, rest: 19 });
    expect(bought(s, 5_000, 0)).toEqual({ seconds: 30, paid: 900, rest: 4_100 });
    const p = { ...clipsDefaults, points: { perSecond: 50, least: 240 } };
    expect([pointsFor(p, 2_000), pointsFor(p, 12_900), pointsFor(p, 90_000)]).toEqual([
      { seconds: 5, price: 250 },
      { seconds: 12, price: 600 },
      { seconds: 30, price: 1_500 },
    ]);
  });
});

describe("a clip that is bought", () => {
  test("twelve seconds from 0:07: taken, looked at, let through, seen, and paid for", () => {
    const play = evening();
    play.says("ada", `!clip ${at} 0:07 12s my first sail`);
    expect([play.answers, play.ordered, play.balance("ada"), play.balances.get("pool")]).toEqual([["clips/taken"], [1], 9_400, 600]);
    play.filmed(1, 3_000);
    expect(play.now.queue[0]).toMatchObject({ phase: "asks", startMs: 7_000, ms: 12_000 });
    play.until(60_000);
    expect(play.now.now).toBeNull();
    play.command({ do: "approve", n: 1 }, 60_000);
    expect(play.now.now).toMatchObject({ shown: true, seen: false });
    play.command({ do: "seen", n: 1 }, 61_000);
    play.until(90_000);
    expect([play.now.now, play.balance("ada"), play.balances.get("pool"), play.balances.get("spent")]).toEqual([null, 9_400, 0, 600]);
    expect(play.kept).toMatchObject([{ title: "my first sail", seenMs: 12_000, skipped: false, paid: 600 }]);
  });
  test("hidden and shown while it plays; skipped: given back, as it is set", () => {
    for (const [skipped, back] of [
      ["all", 600],
      ["rest", 400],
      ["nothing", 0],
    ] as const) {
      const play = evening({ approve: false, skipped });
      play.says("ada", `!clip ${at} 0:07 12s`);
      play.filmed(1, 1_000);
      play.command({ do: "seen", n: 1 }, 1_800);
      expect(codeOf(play.command({ do: "veil" }, 3_700))).toBe("clips/hidden");
      expect(codeOf(play.command({ do: "veil" }, 3_800))).toBe("clips/hidden-already");
      // What is hidden is not seen: two seconds before, two after.
      play.command({ do: "unveil" }, 6_000);
      play.command({ do: "skip" }, 8_000);
      expect([skipped, play.balance("ada")]).toEqual([skipped, 9_400 + back]);
      expect(play.balances.get("pool")).toBe(0);
      expect(play.kept).toMatchObject([{ seenMs: 4_000, skipped: true }]);
    }
  });
  test("no page showed it, or it was hidden all the while: given back", () => {
    const unseen = evening({ approve: false });
    unseen.says("ada", `!clip ${at}`);
    unseen.filmed(1, 1_000);
    unseen.until(60_000);
    expect(unseen.balance("ada")).toBe(10_000);
    const hidden = evening({ approve: false, shownAtOnce: false });
    hidden.says("ada", `!clip ${at}`);
    hidden.filmed(1, 1_000);
    hidden.command({ do: "seen", n: 1 }, 2_000);
    hidden.until(60_000);
    expect([hidden.balance("ada"), hidden.balances.get("pool")]).toEqual([10_000, 0]);
  });
  test.each<[string, Record<string, unknown>, string]>([
    ["flashes", { flashes: "general", flashesAtMs: 2_300 }, "clips/flashes"],
    ["is black", { black: true }, "clips/black"],
    ["is silent, where that is not wanted", { audible: false }, "clips/silent"],
    ["is none of ours", { url: "https://elsewhere.example/x" }, "video/broken"],
  ])("what %s is refused with its reason, and given back", (_, facts, code) => {
    const play = evening({ silent: "refuse" });
    play.says("ada", `!clip ${at}`);
    play.filmed(1, 1_000, facts);
    expect([play.answers.at(-1), play.balance("ada"), play.now.queue]).toEqual([code, 10_000, []]);
  });
  test("what can’t be made, or takes too long, is given back once", () => {
    const play = evening();
    play.says("ada", `!clip ${at}`);
    play.command({ do: "not-filmed", n: 1, code: "prop/address-inside", facts: {} }, 1_000);
    play.command({ do: "not-filmed", n: 1, code: "prop/address-inside", facts: {} }, 1_001);
    play.filmed(1, 1_002);
    expect([play.balance("ada"), play.answers]).toEqual([10_000, ["clips/taken", "prop/address-inside"]]);
    play.says("ada", `!clip ${at}`, 2_000);
    play.until(400_000);
    expect([play.balance("ada"), play.answers.at(-1)]).toEqual([10_000, "clips/too-slow"]);
  });
  test("a film that is shorter than what was bought: the seconds that are not there go back at once", () => {
    const play = evening({ approve: true });
    play.says("ada", `!clip ${at} 12s`);
    play.filmed(1, 1_000, { ms: 7_000 });
    expect(play.balance("ada")).toBe(10_000 - 350);
    play.command({ do: "drop", n: 1 }, 2_000);
    expect([play.balance("ada"), play.balances.get("pool")]).toEqual([10_000, 0]);
  });
  test("what is refused costs nothing: role, rest, words, the same again, too many, too poor, off", () => {
    const play = evening({ roles: ["member"], ownRestMs: 10_000, mostWaiting: 1 }, 300);
    const say = (text: string, atMs: number, roles: readonly "member"[] = ["member"], id = "ada"): string => {
      play.says(id, text, atMs, roles);
      return play.answers.at(-1) ?? "";
    };
    expect(say(`!clip ${at}`, 0, [])).toBe("clips/role");
    expect(say("!clip", 0)).toBe("clips/no-address");
    expect(say(`!clip ${at} a crackpot`, 0)).toBe("clips/hidden");
    expect(say(`!clip ${at} 30s`, 0)).toBe("clips/too-poor");
    expect(say(`!clip ${at} 5s`, 0)).toBe("clips/taken");
    expect(say(`!clip ${at} 6s`, 5_000)).toBe("clips/rest");
    expect(say(`!clip ${at} 6s`, 5_000, ["member"], "tin")).toBe("clips/same");
    expect(say(`!clip ${at}?2 6s`, 5_000, ["member"], "tin")).toBe("clips/full");
    play.command({ do: "switch", on: false }, 6_000);
    expect([play.balance("ada"), play.now.queue]).toEqual([300, []]);
    expect(say(`!clip ${at}`, 90_000)).toBe("clips/off");
    expect([...play.balances].filter(([, n]) => n < 0)).toEqual([]);
  });
});

describe("money", () => {
  test("a tip buys seconds; what is left counts for the next; what is not shown is owed back, and is settled by hand", () => {
    const play = evening({ tips: { perSecond: 30, least: 100 } });
    play.tip("ada", `for the kiln !CLIP ${at} 0:07`, 100);
    expect(play.now.queue[0]).toMatchObject({ ms: 3_000, pay: { by: "money", amount: 90, perSecond: 30, currency: "EUR" } });
    expect(play.now.credits).toEqual([{ id: "ada", name: "ada", minor: 10 }]);
    play.tip("ada", `!clip ${at}?2`, 80, 1_000);
    expect(play.answers.at(-1)).toBe("clips/too-little");
    expect(play.now.credits[0]?.minor).toBe(90);
    play.tip("ada", `!clip ${at}?2`, 15, 2_000);
    expect([play.now.queue[1]?.pay, play.now.credits]).toEqual([
      { by: "money", amount: 90, perSecond: 30, currency: "EUR" },
      [{ id: "ada", name: "ada", minor: 15 }],
    ]);
    play.command({ do: "drop", n: 1 }, 3_000);
    play.filmed(2, 3_000, { flashes: "red" });
    expect(play.now.owed).toMatchObject([
      { minor: 90, currency: "EUR", viewer: { id: "ada" } },
      { minor: 90, viewer: { id: "ada" } },
    ]);
    const [first, second] = play.now.owed;
    play.command({ do: "settled", n: first?.id ?? 0 }, 4_000);
    play.command({ do: "credit", n: second?.id ?? 0 }, 4_000);
    expect([play.now.owed, play.now.credits[0]?.minor]).toEqual([[], 105]);
    expect(codeOf(play.command({ do: "settled", n: first?.id ?? 0 }, 5_000))).toBe("clips/decided");
  });
  test("a tip without the word and an address is none of ours; one in a currency nobody knows is said; nobody’s is owed back", () => {
    const play = evening();
    play.tip("ada", "for the kiln", 5_000);
    play.tip("ada", `for the kiln, see ${at}`, 5_000);
    expect([play.now.queue, play.answers, play.now.credits]).toEqual([[], [], []]);
    play.tip("ada", `!clip ${at}`, null);
    expect(play.answers).toEqual(["clips/no-rate"]);
    play.command({ do: "switch", on: false });
    play.tip(null, `!clip ${at}`, 500);
    expect(play.now.owed).toMatchObject([{ viewer: null, minor: 500 }]);
  });
  test("a reward’s clip that is not shown gives the sale back", () => {
    const play = evening();
    play.command({ do: "send", text: `${at} 0:07`, seconds: 9 }, 0, viewer("ada"), "sale-1");
    expect(play.now.queue[0]).toMatchObject({ ms: 9_000, startMs: 7_000, pay: { by: "sale", sale: "sale-1" } });
    play.command({ do: "not-filmed", n: 1, code: "video/no-video", facts: {} }, 1_000);
    play.command({ do: "send", text: "no address", seconds: 9 }, 2_000, viewer("ada"), "sale-2");
    expect(play.givenBack).toEqual(["sale-1", "sale-2"]);
  });
});

describe("the queue, by hand", () => {
  test("begun by hand; one of the channel’s own is free; the last one again; reordered", () => {
    const play = evening({ byThemselves: false, approve: false });
    play.command({ do: "own", picture: "kettle" });
    expect(codeOf(play.command({ do: "own", picture: "gone" }))).toBe("clips/no-film");
    play.says("ada", `!clip ${at}`);
    play.filmed(2, 100);
    play.until(10_000);
    expect(play.now.now).toBeNull();
    play.command({ do: "front", n: 2 }, 10_000);
    play.command({ do: "play" }, 10_000);
    expect(play.now.now?.clip.n).toBe(2);
    expect(codeOf(play.command({ do: "play" }, 10_100))).toBe("clips/plays-already");
    play.command({ do: "seen", n: 2 }, 11_000);
    play.command({ do: "skip" }, 11_500);
    play.command({ do: "play" }, 12_000);
    expect(play.now.now?.clip).toMatchObject({ title: "The kettle", viewer: null });
    play.until(30_000);
    play.command({ do: "replay", n: 2 }, 30_000);
    expect(play.now.queue[0]).toMatchObject({ viewer: { id: "ada" }, pay: { by: "nothing" }, phase: "waits" });
  });
  test("a gap between two; held; nothing begins under hush", () => {
    const play = evening({ approve: false, gapMs: 5_000 });
    for (const [i, id] of ["a", "b", "c"].entries()) {
      play.says(id, `!clip ${at}?${i}`);
      play.filmed(i + 1, 10);
    }
    const first = play.now.now;
    play.until((first?.untilMs ?? 0) + 4_999);
    expect(play.now.now).toBeNull();
    play.until((first?.untilMs ?? 0) + 5_000);
    expect(play.now.now?.clip.n).toBe(2);
    play.command({ do: "hold" }, 30_000);
    play.until(200_000);
    expect([play.now.now, play.now.queue.length]).toEqual([null, 1]);
    play.hush(true);
    play.command({ do: "go-on" }, 200_000);
    play.until(203_000);
    expect(play.now.now).toBeNull();
    play.hush(false);
    play.until(205_000);
    expect(play.now.now?.clip.n).toBe(3);
  });
  test("whose clips are not taken: what waits and plays of theirs goes, and is given back", () => {
    const play = evening({ approve: false });
    play.says("ada", `!clip ${at}?1`);
    play.filmed(1, 10);
    play.says("ada", `!clip ${at}?2`, 20);
    play.says("tin", `!clip ${at}?3`, 30);
    play.command({ do: "bar", name: "@ada" }, 1_000);
    expect([play.now.now, play.now.queue.map((c) => c.n), play.balance("ada")]).toEqual([null, [3], 10_000]);
    play.says("ada", `!clip ${at}?4`, 2_000);
    expect(play.answers.at(-1)).toBe("clips/barred");
    play.command({ do: "let-back", name: "ada" }, 3_000);
    play.says("ada", `!clip ${at}?4`, 4_000);
    expect(play.answers.at(-1)).toBe("clips/taken");
    expect(codeOf(play.command({ do: "bar", name: "nobody" }))).toBe("clips/unknown");
  });
  test("a film that is barred by its content is refused from wherever it comes", () => {
    const play = evening({ approve: false });
    play.says("ada", `!clip ${at}?1`);
    play.filmed(1, 10);
    play.command({ do: "bar-file", n: 1 }, 1_000);
    expect([play.now.now, play.balance("ada")]).toEqual([null, 10_000]);
    play.says("tin", `!clip ${at}/elsewhere`, 2_000);
    play.command({ do: "filmed", n: 2, facts: factsOf(), sha: "sha-1" }, 3_000);
    expect([play.answers.at(-1), play.balance("tin"), play.now.queue]).toEqual(["clips/barred-file", 10_000, []]);
    play.command({ do: "let-file", sha: "sha-1" }, 4_000);
    play.says("tin", `!clip ${at}/elsewhere`, 5_000);
    play.command({ do: "filmed", n: 3, facts: factsOf(), sha: "sha-1" }, 6_000);
    expect([play.now.barred.files, play.now.now?.clip.n]).toEqual([[], 3]);
  });
  test("its own sender takes it back, and nobody else", () => {
    const play = evening();
    play.says("ada", `!clip ${at}`);
    expect(codeOf(play.command({ do: "withdraw", n: 1 }, 10, viewer("tin")))).toBe("clips/gone");
    play.command({ do: "withdraw", n: 1 }, 10, viewer("ada"));
    expect([play.now.queue, play.balance("ada")]).toEqual([[], 10_000]);
  });
});

test("viewers and overlays see no address, no price, no name of who is barred", () => {
  const play = evening();
  play.says("ada", `!clip ${at} secret-title`);
  play.command({ do: "bar", name: "grim_lurker" });
  for (const audience of ["viewer", "overlay"] as const)
    expect(JSON.stringify(clips.view(play.settings, play.now, audience))).not.toMatch(/films\.example|secret-title|grim_lurker|ada/);
});
