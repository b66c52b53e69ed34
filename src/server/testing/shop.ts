import { expect } from "@jest/globals";
import { openVault } from "../../core/chance/vault";
import { channelId, gameId } from "../../core/kernel/ids";
import { pointsDefaults } from "../../core/points/settings";
import { newReward, type Reward } from "../../core/rewards/settings";
import { showDefaults } from "../../core/show/settings";
import { inProcessBus } from "../adapters/bus/in-process";
import { mariadbEngineStore } from "../adapters/mariadb/engine-store";
import { ownCodes } from "../adapters/mariadb/lean-tables";
import { checkLedgerOf } from "../adapters/mariadb/ledger-check";
import { readChannel } from "../engine/recall";
import { readLedger, Runner } from "../engine/runner";
import type { Publication } from "../ports/bus";
import type { EngineStore } from "../ports/engine-store";
import { said } from "./channel";
import { testDatabase } from "./database";

export const reward = (id: string, part: Partial<Reward> = {}): Reward => ({
  ...newReward(id, id, 100),
  words: [`!${id}`],
  effects: [{ do: "say", text: `{viewer} has ${id}` }],
  ...part,
});
export const viewer = (name: string) => ({ id: name, name, roles: [] });

/** Channels that sell, on a database of their own; each is stopped when the next is opened. */
export async function testShops(name: string) {
  const { db, at, end } = await testDatabase(name);
  let n = 0;
  let open: Awaited<ReturnType<typeof shop>> | null = null;
  /** What is written of an account: a viewer's, or one of the channel's own. */
  async function balanceOf(id: string, account: string): Promise<number> {
    const { num } = (await db("channels").where({ id }).first("num")) as { num: number };
    const row = account.startsWith("v:")
      ? await db("viewers")
          .where({ channel: num, ext: account.slice(2) })
          .first("balance")
      : await db("own_accounts")
          .where({ channel: num, account: ownCodes[account as "held"] })
          .first("balance");
    return Number((row as { balance: number } | undefined)?.balance ?? 0);
  }

  /** A channel with points and these rewards, on air unless said otherwise. */
  async function shop(
    rewards: Reward[],
    over: Partial<EngineStore> = {},
    more: readonly (readonly [kind: string, settings: unknown])[] = [],
  ) {
    n += 1;
    const id = channelId(`shop${n}`);
    const games = [
      ["rewards", { schema: 3, rewards }],
      ["points", { ...pointsDefaults, name: "clay", dailyMost: 0 }],
      ["show", showDefaults],
      ...more,
    ] as const;
    await db("channels").insert({ id, name: "Saltmarsh Kiln", salt: 1, revision: 1, hushed: false, created_ms: 1 });
    for (const [kind, settings] of games) {
      const part = `${kind}-${id}`;
      await db("games").insert({ id: part, channel_id: id, kind, name: kind, draft: JSON.stringify(settings), version: 1, created_ms: 1 });
      await db("game_versions").insert({ game_id: part, version: 1, settings: JSON.stringify(settings), by: "x", at_ms: 1 });
    }
    const store: EngineStore = { ...mariadbEngineStore(db), ...over };
    const time = { nowMs: 1_000_000_000 };
    const says: string[] = [];
    let chatWorks = true;
    const heard: Publication[] = [];
    const bus = inProcessBus();
    bus.subscribe((_, p) => heard.push(p));
    let inFlight: Promise<unknown> = Promise.resolve();
    let living = 0;
    const start = async (): Promise<Runner> => {
      const own = (living += 1);
      // A process that was killed sends nothing more; what the database was doing for it, it ends.
      const mine: EngineStore = {
        ...store,
        commit: (to, commit, fence) => {
          if (own !== living) return new Promise(() => undefined);
          const done = store.commit(to, commit, fence);
          // One that died in the middle never hears the end of it.
          inFlight = Promise.race([done.catch(() => undefined), new Promise((r) => setTimeout(r, 1_000))]);
          return done;
        },
      };
      const row = await readChannel(store, id);
      if (row === null) throw new Error("the channel was just made");
      const ledgerView = await readLedger(store, row, time.nowMs);
      return new Runner(
        { store: mine, clock: { now: () => time.nowMs }, bus, say: (t) => chatWorks && says.push(t) > 0, vault: openVault("the shop’s") },
        row,
        await store.lastSeq(id),
        ledgerView,
      );
    };
    let runner = await start();
    let k = 0;
    const part = (kind: string) => gameId(`${kind}-${id}`);
    const command = (kind: string, what: Record<string, unknown>) =>
      runner.requests.command(part(kind), "maria", `command-${(k += 1)}-${id}`, what as never);
    const give = (name: string, by: number) => command("points", { do: "adjust", viewer: name, name, by, why: "for the test" });
    const say = (name: string, text: string) => runner.inbox.message(said(text, null, name));
    const purchase = (name: string, which: string, price = 100, requestId = `w${(k += 1)}`) =>
      runner.requests.purchase(viewer(name), { id: requestId, reward: which, text: "", price });
    const settled = async () => {
      for (let i = 0; i < 2_000 && runner.busy; i += 1) await new Promise((r) => setTimeout(r, 5));
    };
    return {
      id,
      store,
      time,
      says,
      heard,
      command,
      give,
      say,
      purchase,
      settled,
      get runner() {
        return runner;
      },
      silence: () => (chatWorks = false),
      onAir: () => command("show", { do: "show", what: "on-air" }),
      /** As after kill −9: nothing is told to stop, all is read anew. */
      restart: async () => {
        const old = runner;
        living += 1;
        await inFlight;
        runner = await start();
        void old.stop();
        return runner;
      },
      sales: async () =>
        (
          (await db("sales as s")
            .join("channels as c", "c.num", "s.channel")
            .join("viewers as v", "v.id", "s.viewer")
            .where("c.id", id)
            .orderBy("s.seq")
            .select("s.*", "v.ext")) as { seq: number; state: string; ext: string; shown: number; code: string }[]
        ).map((r) => ({ id: `s${r.seq}`, state: r.state, viewer: r.ext, shown: r.shown, code: r.code })),
      balance: async (name: string) => balanceOf(id, `v:${name}`),
      /** The ledger balances, and what the engine believes is what is written. */
      sound: async () => {
        const report = await checkLedgerOf(db, id);
        expect(report.faults).toEqual([]);
        for (const [account, balance] of runner.ledgerView.balances())
          expect([account, await balanceOf(id, account)]).toEqual([account, balance]);
        return report;
      },
    };
  }

  return {
    db,
    at,
    balanceOf,
    opened: async (...args: Parameters<typeof shop>) => {
      await open?.runner.stop();
      return (open = await shop(...args));
    },
    end: async () => {
      await open?.runner.stop();
      await end();
    },
  };
}
export type Shop = Awaited<ReturnType<Awaited<ReturnType<typeof testShops>>["opened"]>>;
