import { chanceFrom } from "../../core/kernel/chance";
import { type ChannelId, gameId } from "../../core/kernel/ids";
import * as ledger from "../../core/points/ledger";
import type { Sale } from "../../core/rewards/ledger-view";
import { type Reward, type RewardBook } from "../../core/rewards/settings";
import type { RuleEffect } from "../../core/rules/effect";
import type { Database } from "../adapters/mariadb/database";
import { mariadbEngineStore } from "../adapters/mariadb/engine-store";
import type { Booked, KeptRow } from "../ports/engine-store";
import { isShowDay, newestShowDay } from "./demo-records";

/** Of each: mark, name, price, chat words, what it does, and what differs from a plain reward. */
export type Line = readonly [id: string, name: string, price: number, words: string, effects: RuleEffect[], more?: Partial<Reward>];

export const second = 1_000;

export const minute = 60_000;

const first = [
  "amber",
  "mossy",
  "pale",
  "salty",
  "quiet",
  "tidal",
  "crackle",
  "ashen",
  "copper",
  "drift",
  "ember",
  "fennel",
  "glazed",
  "hollow",
  "ivory",
  "kelp",
  "loamy",
  "misty",
  "nettle",
  "ochre",
];

const last = [
  "kettle",
  "wren",
  "bucket",
  "sponge",
  "gannet",
  "pestle",
  "lantern",
  "teapot",
  "otter",
  "ladle",
  "biscuit",
  "barge",
  "reed",
  "trowel",
  "thimble",
  "puddle",
  "spindle",
  "anvil",
  "marrow",
  "cricket",
];

const handles = Array.from({ length: 360 }, (_, i) => `${first[i % 20] ?? ""}_${last[Math.floor(i / 20) % 20] ?? ""}${i >= 340 ? i : ""}`);

const dayMs = 86_400_000;

/** Seventy-odd shows in half a year: who was there, what they did with their clay. The same every time. */
export async function fillHistory(db: Database, channel: ChannelId, rewards: RewardBook, nowMs: number): Promise<void> {
  const chance = chanceFrom(4_470);
  const sold = rewards.rewards.filter((r) => r.on && r.keptFor === "" && r.roles.includes("viewer") && r.price > 0);
  const balances = new Map<string, number>();
  const booked: Booked[] = [];
  const records: Omit<KeptRow, "gameId">[] = [];
  let seq = 0;
  const midnight = Math.floor(nowMs / dayMs) * dayMs;
  /** Each is a signal of its own, as it was when it happened. */
  const pay = (entry: ledger.Entry, sale: Sale | null = null, showId = ""): void => {
    if (sale === null || sale.id !== `s${seq}`) seq += 1;
    const viewers = entry.postings.flatMap((p) => (p.account.startsWith("v:") ? [p.account.slice(2)] : []));
    for (const p of entry.postings)
      if (p.account.startsWith("v:")) balances.set(p.account.slice(2), (balances.get(p.account.slice(2)) ?? 0) + p.amount);
    booked.push({
      seq,
      showId,
      booking: { entries: [entry], sales: sale === null ? [] : [sale], names: viewers.map((id) => ({ id, name: id })), prices: [] },
      earned: [],
      fresh: viewers.map((v) => ledger.viewerAccount(v)),
      counted:
        sale === null || sale.state === "refunded"
          ? sale === null
            ? []
            : [{ rewardId: sale.rewardId, name: sale.rewardName, sold: -1, handed: 0, points: -sale.price }]
          : [{ rewardId: sale.rewardId, name: sale.rewardName, sold: 1, handed: 0, points: sale.price }],
    });
  };
  let n = 0;
  for (let day = 182; day >= newestShowDay; day -= 1) {
    if (!isShowDay(midnight - day * dayMs)) continue;
    n += 1;
    const fromMs = midnight - day * dayMs + 19 * 3_600_000;
    const toMs = fromMs + (110 + Math.floor(chance() * 70)) * minute;
    const showId = `past-${n}`;
    records.push({ seq: 0, kind: "show", viewer: null, fromMs, toMs, body: { id: showId, rehearsal: false, by: "kilnkeeper" } });
    // The channel grows: more of them come as the months go by, and the first come most often.
    const known = Math.min(handles.length, 60 + Math.floor(n * 4.4));
    const here = handles.slice(0, known).filter((_, i) => chance() < 0.16 + 0.5 * Math.exp(-i / 40));
    const rounds = 6 + Math.floor(chance() * 6);
    pay(
      ledger.earnedByMany(
        { key: `demo-here:${n}`, atMs: toMs, about: "", by: "" },
        "presence",
        here.map((viewer) => ({ viewer, amount: 12 * (3 + Math.floor(chance() * rounds)) })),
      ),
      null,
      showId,
    );
    for (let k = 0; k < 2 + chance() * 5; k += 1) {
      const viewer = here[Math.floor(chance() * here.length)] ?? "amber_kettle";
      const kind = chance() < 0.5 ? "follow" : chance() < 0.6 ? "membership" : "tip";
      pay(
        ledger.earned(
          { key: `demo-sig:${n}.${k}`, atMs: fromMs + k * 9 * minute, about: kind, by: "" },
          "signal",
          viewer,
          kind === "follow" ? 100 : kind === "tip" ? 300 : 500,
        ),
        null,
        showId,
      );
    }
    for (let k = 0; k < 14 + n / 3; k += 1) {
      const viewer = here[Math.floor(chance() * chance() * here.length)] ?? "amber_kettle";
      const reward = sold[Math.floor(chance() * chance() * sold.length)];
      if (reward === undefined || (balances.get(viewer) ?? 0) < reward.price || reward.stock > 0) continue;
      const id = `s${(seq += 1)}`;
      const atMs = fromMs + Math.floor((k / (14 + n / 3)) * (toMs - fromMs));
      const sale: Sale = {
        id,
        atMs,
        rewardId: reward.id,
        rewardName: reward.name,
        viewer: { id: viewer, name: viewer },
        price: reward.price,
        text: reward.text.how === "none" ? "" : "celadon, please",
        state: "done",
        showId,
        decidedBy: reward.approval ? "spongebearer" : "",
        times: 0,
        code: "",
        shown: true,
      };
      pay(ledger.bought({ key: `buy:${id}`, atMs, about: reward.name, by: "" }, viewer, reward.price), sale, showId);
      if (chance() < 0.02)
        pay(
          ledger.refunded(
            { key: `back:${id}:0`, atMs: atMs + minute, about: reward.name, by: "spongebearer" },
            viewer,
            reward.price,
            "spent",
          ),
          { ...sale, state: "refunded", decidedBy: "spongebearer" },
          showId,
        );
    }
  }
  // Those whom the rig and the tests speak as have something to spend.
  for (const [viewer, name, amount] of [
    ["mossy_teapot", "mossy_teapot", 1_240],
    ["quietferry", "quietferry", 640],
    ["oatcake_ada", "oatcake_ada", 2_310],
  ] as const)
    pay(
      ledger.adjusted(
        { key: `demo-start:${name}`, atMs: nowMs - 3 * dayMs, about: "thank you for the summer fair", by: "kilnkeeper" },
        viewer,
        Math.max(0, amount - (balances.get(viewer) ?? 0)),
      ),
    );
  // Two that wait for a yes.
  for (const [i, [viewer, rewardId, text]] of (
    [
      ["amber_kettle", "test-tile", ""],
      ["mossy_wren", "card", ""],
    ] as const
  ).entries()) {
    const reward = rewards.rewards.find((r) => r.id === rewardId);
    if (reward === undefined) continue;
    const atMs = nowMs - (2 - i) * 3_600_000;
    const short = reward.price - (balances.get(viewer) ?? 0);
    if (short > 0)
      pay(
        ledger.adjusted(
          { key: `demo-prize:${viewer}`, atMs: atMs - dayMs, about: "won at the summer fair", by: "kilnkeeper" },
          viewer,
          short + 350,
        ),
      );
    const id = `s${(seq += 1)}`;
    pay(ledger.asked({ key: `buy:${id}`, atMs, about: reward.name, by: "" }, viewer, reward.price), {
      id,
      atMs,
      rewardId,
      rewardName: reward.name,
      viewer: { id: viewer, name: viewer },
      price: reward.price,
      text,
      state: "waiting",
      showId: "",
      decidedBy: "",
      times: 0,
      code: "",
      shown: false,
    });
  }
  const store = mariadbEngineStore(db);
  await store.commit(channel, { rows: [], states: [], kept: records.map((r) => ({ ...r, gameId: gameId("kiln-show") })), booked });
}
