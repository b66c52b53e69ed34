import { describe, expect, test } from "@jest/globals";
import { checkProof } from "../../chance/check";
import { evening, proofIn, settingsOf } from "./evening";

describe("from lock to result", () => {
  test("roles multiply tickets as they are at the lock; the chain shows it, and the proof holds", () => {
    const e = evening(settingsOf({ most: 2, times: [{ role: "member", times: 3 }] }));
    e.command({ do: "open" });
    e.say("ada", "!in 2", 1_000, ["member"]);
    e.say("bo", "!in 2");
    e.command({ do: "lock" });
    expect(e.at().round).toMatchObject({ tickets: 8, people: 2 });
    e.command({ do: "draw" });
    e.command({ do: "close" });
    expect(checkProof(proofIn(e.rows))).toMatchObject({ holds: true });
  });
  test("viewers shake the drum: each once, so many or so long, and the result hangs on it", () => {
    const e = evening(settingsOf({ shake: true, shakers: 2, shakeMs: 10_000 }));
    e.command({ do: "open" });
    e.say("ada", "!in");
    expect(e.command({ do: "lock" }, 2_000).says[0]).toContain("the first 2 of you shake the drum");
    expect(e.command({ do: "draw" }, 2_500).codes).toEqual(["raffle/shaking"]);
    e.say("bo", "left", 3_000);
    expect(e.say("bo", "right", 3_500).codes).toEqual([]);
    e.say("cy", "up", 4_000);
    expect(e.at().round?.phase).toBe("locked");
    e.command({ do: "draw" }, 5_000);
    e.command({ do: "close" }, 6_000);
    const proof = proofIn(e.rows) as { record: { kind: string; id?: string; text?: string }[] };
    expect(proof.record.map((h) => `${h.kind} ${h.text ?? ""}`.trim())).toEqual(["lock", "shake left", "shake up", "shaken", "draw"]);
    expect(checkProof(proof).steps.filter((x) => !x.holds)).toEqual([]);
    const [lock, left, up, ...rest] = proof.record;
    expect(checkProof({ ...proof, record: [lock, up, left, ...rest] }).holds).toBe(false);
  });
  test("a message that comes after its time shakes nothing, however late the end of it is told", () => {
    const e = evening(settingsOf({ shake: true, shakers: 5, shakeMs: 10_000 }));
    e.command({ do: "open" });
    e.say("ada", "!in");
    e.command({ do: "lock" }, 2_000);
    e.say("bo", "in time", 12_000);
    e.say("cy", "too late", 12_001);
    e.timer(15_000);
    e.command({ do: "draw" }, 16_000);
    e.command({ do: "close" }, 17_000);
    const proof = proofIn(e.rows) as { record: { kind: string; id?: string }[] };
    expect(proof.record.filter((h) => h.kind === "shake").map((h) => h.id)).toEqual(["bo"]);
    expect(checkProof(proof).holds).toBe(true);
  });
  test("it locks by itself at its time, even if the server was down then", () => {
    const e = evening(settingsOf({ locks: "time", openMs: 60_000 }));
    e.command({ do: "open" }, 1_000);
    e.say("ada", "!in");
    expect(e.due()).toBe(61_000);
    expect(e.timer(999_000).told).toEqual(["raffle/locked"]);
  });
  test("who does not answer in time is passed over and kept; the next is drawn", () => {
    const e = evening(settingsOf({ claimMs: 30_000, winners: 1 }));
    e.command({ do: "open" });
    for (const who of ["ada", "bo", "cy"]) e.say(who, "!in");
    e.command({ do: "lock" }, 2_000);
    e.command({ do: "draw" }, 3_000);
    const first = e.at().round!.winners[0]!.id;
    expect(e.due()).toBe(33_001);
    expect(e.timer(33_001).told).toEqual(["raffle/drawn"]);
    const [passed, second] = e.at().round!.winners;
    expect([passed?.state, second?.state]).toEqual(["passed", "waits"]);
    expect(second?.id).not.toBe(first);
    expect(e.say(second!.id, "me!", 34_000).words).toEqual([`${second!.id} claimed it`]);
    expect(e.command({ do: "draw" }, 35_000).codes).toEqual(["raffle/all-drawn"]);
    e.command({ do: "close" }, 36_000);
    expect((e.rows.at(-1)?.body as { label: string }).label).toBe(second!.id);
    expect(checkProof(proofIn(e.rows)).holds).toBe(true);
  });
  test("more winners, each once, with the prizes in their order", () => {
    const prizes = [
      { id: "a", name: "Tall vase", count: 1, how: "" },
      { id: "b", name: "Mug", count: 2, how: "" },
    ];
    const e = evening(settingsOf({ winners: 3, prizes }));
    e.command({ do: "open" });
    for (const who of ["ada", "bo", "cy"]) e.say(who, "!in");
    e.command({ do: "lock" });
    for (let i = 0; i < 3; i += 1) e.command({ do: "draw" });
    expect(e.at().round?.winners.map((w) => w.prize)).toEqual(["Tall vase", "Mug", "Mug"]);
    expect(new Set(e.at().round?.winners.map((w) => w.id)).size).toBe(3);
    expect(e.command({ do: "draw" }).codes).toEqual(["raffle/all-drawn"]);
  });
  test("nobody in: nothing can be drawn, and it can still be closed", () => {
    const e = evening(settingsOf({ shake: true }));
    e.command({ do: "open" });
    e.command({ do: "lock" });
    expect(e.command({ do: "draw" }).words).toEqual(["nobody is in"]);
    expect(e.command({ do: "close" }).codes).toEqual(["raffle/closed"]);
  });
  test("closing with somebody in and nobody drawn warns; a second word within twenty seconds is meant", () => {
    const e = evening(settingsOf());
    e.command({ do: "open" });
    e.say("ada", "!in");
    e.command({ do: "lock" });
    expect(e.command({ do: "close" }, 10_000).words).toEqual(["nobody was drawn: close it again within 20 s to end it so"]);
    expect(e.command({ do: "close" }, 40_000).codes).toEqual(["raffle/undrawn"]);
    expect(e.command({ do: "close" }, 50_000).codes).toEqual(["raffle/closed"]);
    expect(e.rows.at(-1)).toMatchObject({ kind: "round", body: { label: "Nobody was drawn" } });
  });
  test("all at once, and one more than was planned", () => {
    const e = evening(settingsOf({ winners: 2 }));
    e.command({ do: "open" });
    for (const who of ["ada", "bo", "cy", "di"]) e.say(who, "!in");
    e.command({ do: "lock" });
    expect(e.command({ do: "draw-all" }).told).toEqual(["raffle/drawn", "raffle/drawn"]);
    expect(e.command({ do: "draw-all" }).codes).toEqual(["raffle/all-drawn"]);
    for (const left of [2, 1]) expect([left, e.command({ do: "another" }).codes]).toEqual([left, ["raffle/drawn"]]);
    expect(e.command({ do: "another" }).codes).toEqual(["raffle/nobody"]);
    expect(new Set(e.at().round?.winners.map((w) => w.id)).size).toBe(4);
    e.command({ do: "close" });
    expect(checkProof(proofIn(e.rows)).holds).toBe(true);
  });
  test("an operator says who has answered, and passes over who has not; the next is drawn at once", () => {
    const e = evening(settingsOf({ claimMs: 30_000, prizes: [{ id: "a", name: "Mug", count: 1, how: "by post" }] }));
    e.command({ do: "open" });
    for (const who of ["ada", "bo", "cy"]) e.say(who, "!in");
    e.command({ do: "lock" });
    e.command({ do: "draw" });
    expect(e.command({ do: "pass", index: 0 }).codes).toEqual(["raffle/passed-over", "raffle/drawn"]);
    expect(e.command({ do: "pass", index: 0 }).codes).toEqual(["raffle/decided-already"]);
    expect(e.command({ do: "claimed", index: 1 }).told).toEqual(["raffle/claimed"]);
    expect(e.command({ do: "claimed", index: 7 }).codes).toEqual(["raffle/none"]);
    e.command({ do: "close" });
    const [owed] = e.at().owed;
    expect(owed).toMatchObject({ prize: "Mug", how: "by post", state: "claimed" });
    expect(e.command({ do: "prize", id: owed!.id, state: "sent" }).codes).toEqual(["raffle/prize"]);
    expect(e.at().owed[0]?.state).toBe("sent");
    expect(e.command({ do: "prize", id: "another", state: "sent" }).codes).toEqual(["raffle/no-prize"]);
  });
  test("the nearest number wins, the earlier where two are as near; a changed guess counts from its change", () => {
    const e = evening(settingsOf({ by: "number", number: { from: 1, to: 10 }, tries: 2 }));
    e.command({ do: "open" });
    expect(e.say("ada", "!in").words).toEqual(["say a number from 1 to 10"]);
    expect(e.say("ada", "!in seven").words).toEqual(["that is no number: say one from 1 to 10"]);
    expect(e.say("ada", "!in 11").words).toEqual(["the numbers go from 1 to 10"]);
    for (let n = 1; n <= 10; n += 1) e.say(`v${n}`, `!in ${n}`);
    e.say("late", "!in 3");
    // Named again the same: it keeps its place; another number begins anew.
    e.say("v3", "!in 4");
    expect(e.say("v3", "!in 5").words).toEqual(["you named 4, and that stands"]);
    e.command({ do: "lock" });
    e.command({ do: "draw" });
    const { target, winners } = e.at().round!;
    const exact = target!.number === 3 ? "late" : target!.number === 4 ? "v4" : `v${target!.number}`;
    expect(winners[0]?.id).toBe(exact);
    e.command({ do: "another" });
    e.command({ do: "close" });
    const proof = JSON.parse(JSON.stringify(proofIn(e.rows))) as { number: { target: number }; changes: { guess: number }[] };
    expect(checkProof(proof).steps.filter((s) => !s.holds)).toEqual([]);
    // Another number, another range, another guess: each is found.
    for (const tampered of [
      { ...proof, number: { ...proof.number, target: (proof.number.target % 10) + 1 } },
      { ...proof, number: { ...proof.number, to: 11 } },
      { ...proof, changes: proof.changes.map((c, i) => (i === 2 ? { ...c, guess: 9 } : c)) },
    ])
      expect(checkProof(tampered).holds).toBe(false);
  });
});
