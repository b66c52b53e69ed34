import { afterAll, beforeAll, describe, expect, test } from "@jest/globals";
import { knex, type Knex } from "knex";
import { chanceFrom } from "../../../core/kernel/chance";
import { testDatabase } from "../../testing/database";
import { reward, testShops } from "../../testing/shop";
import { type Database, isAway, isInTheWay, openDatabase } from "./database";
import { Pipeline } from "./pipeline";

/** A transaction is whole or not at all, whatever fails in it and whenever. */
const steps = 6;

describe("one transaction, handed over at once", () => {
  let db: Database;
  let rival: Database;
  let bare: Knex;
  let at: Awaited<ReturnType<typeof testDatabase>>["at"];
  let end: () => Promise<void>;
  beforeAll(async () => {
    ({ db, at, end } = await testDatabase("whole"));
    rival = openDatabase(at, 4);
    const { host, port, user, password, name } = at;
    bare = knex({ client: "mysql2", connection: { host, port, user, password, database: name }, pool: { min: 0, max: 2 } });
    await db.raw("create table written (id int primary key) engine=innodb");
    await db.raw("create table heavy (id int primary key) engine=innodb");
    await db.raw("create table hot (id int primary key, n int not null) engine=innodb");
    await db.raw("insert into hot values (1, 0), (2, 0)");
  });
  afterAll(async () => {
    await Promise.all([rival.destroy(), bare.destroy()]);
    await end();
  });
  /** What stays of a transaction of six rows whose statement at this place fails; how it failed. */
  async function fails(on: Knex, place: number, how: "deadlock" | "wait" | "kill query" | "kill connection" | "wrong"): Promise<string> {
    await db.raw("delete from written");
    const other = await rival.transaction();
    if (how !== "wrong") {
      // Heavier than the one it is in the way of, so that the server gives up the other one.
      await other.raw(`insert into heavy values ${Array.from({ length: 60 }, (_, i) => `(${i})`).join(",")}`);
      await other.raw("update hot set n = n + 1 where id = 2");
    }
    let id = 0;
    const ran = on.transaction(async (trx) => {
      const [[row]] = (await trx.raw("select connection_id() as id")) as [{ id: number }[]];
      id = Number(row?.id);
      if (how === "wait") await trx.raw("set session innodb_lock_wait_timeout = 1");
      await trx.raw("update hot set n = n + 1 where id = 1");
      const to = new Pipeline(trx);
      for (let i = 0; i < steps; i += 1) {
        if (i === place) to.raw(how === "wrong" ? "insert into hot values (1, 1)" : "update hot set n = n + 1 where id = 2");
        to.raw("insert into written values (?)", [i]);
      }
      await to.done();
    });
    const came = ran.then(
      () => "committed",
      (error: unknown) => (isInTheWay(error) ? "in the way" : isAway(error) ? "away" : "wrong"),
    );
    if (how !== "wrong" && how !== "wait") {
      // It waits for the row that the rival holds.
      for (let n = 0; n < 400; n += 1) {
        const [rows] = (await rival.raw(
          "select count(*) as n from information_schema.processlist where id = ? and info like 'update hot%id = 2'",
          [id],
        )) as [{ n: number }[]];
        if (Number(rows[0]?.n) > 0) break;
      }
      if (how === "deadlock") await other.raw("update hot set n = n + 1 where id = 1");
      else await rival.raw(how === "kill query" ? `kill query ${id}` : `kill ${id}`);
    }
    const said = await came;
    await other.rollback();
    return said;
  }
  const left = async (): Promise<readonly number[]> => {
    const [rows] = (await db.raw("select (select count(*) from written) as rows_left, (select sum(n) from hot) as changed")) as [
      { rows_left: number; changed: number }[],
    ];
    return [Number(rows[0]?.rows_left), Number(rows[0]?.changed)];
  };

  test("the driver alone leaves what followed a deadlock’s victim: this test can fail", async () => {
    await expect(fails(bare, 1, "deadlock")).resolves.toBe("in the way");
    expect((await left())[0]).toBeGreaterThan(0);
  });
  test.each(["deadlock", "wait", "kill query", "kill connection", "wrong"] as const)(
    "%s, at every place: nothing of it stays",
    async (how) => {
      for (let place = 0; place < steps; place += how === "wait" ? 3 : 1)
        for (let n = 0; n < (how === "wait" ? 1 : 4); n += 1) {
          expect([place, await fails(db, place, how)]).toEqual([
            place,
            how === "wrong" ? "wrong" : how === "kill connection" ? "away" : "in the way",
          ]);
          expect([place, ...(await left())]).toEqual([place, 0, 0]);
        }
    },
  );
  test("whoever swallows what failed and would commit the rest commits nothing, and leaves nothing to the next on that connection", async () => {
    await db.raw("delete from written");
    const one = openDatabase(at, 1);
    const done = one.transaction(async (trx) => {
      await trx.raw("insert into written values (1)");
      await trx.raw("insert into hot values (1, 1)").catch(() => undefined);
      await trx.raw("insert into written values (2)").catch(() => undefined);
    });
    await expect(done).rejects.toThrow();
    await one.transaction(async (trx) => void (await trx.raw("insert into written values (9)")));
    const [rows] = (await db.raw("select id from written")) as [{ id: number }[]];
    expect(rows.map((r) => r.id)).toEqual([9]);
    await one.destroy();
  });
});

describe("a channel that sells while its transactions are deadlocked, interrupted and cut off", () => {
  test("what was sold is paid once, what was refused is not, and the ledger is exact to the point", async () => {
    const shops = await testShops("whole_shop");
    const s = await shops.opened([reward("bell", { price: 3 })]);
    await s.onAir();
    const buyers = Array.from({ length: 20 }, (_, i) => `buyer${i}`);
    for (const name of buyers) await s.give(name, 3_000);
    await s.settled();
    const rival = openDatabase(shops.at, 6);
    const chance = chanceFrom(26);
    const upTo = (n: number): number => Math.floor(chance() * n);
    let over = false;
    const done = { deadlocks: 0, queries: 0, connections: 0 };
    const troubles = (): number => done.deadlocks + done.queries + done.connections;
    /** Locks what a commit needs late, then what it needs first: whoever meets it there is in a deadlock. */
    const locks = async (): Promise<void> => {
      while (!over) {
        await rival
          .transaction(async (trx) => {
            const late = [
              "update own_accounts set balance = balance + 1",
              "update viewers set balance = balance + 1",
              "update daily_points set made = made + 1",
            ];
            await trx.raw(late[upTo(late.length)] ?? "");
            await new Promise((r) => setTimeout(r, upTo(6)));
            await trx.raw("update leases set last_seq = last_seq + 1");
            await trx.rollback();
          })
          .catch((error: { code?: string }) => void (done.deadlocks += error.code === "ER_LOCK_DEADLOCK" ? 1 : 0));
        await new Promise((r) => setTimeout(r, upTo(8)));
      }
    };
    const kills = async (): Promise<void> => {
      while (!over) {
        await new Promise((r) => setTimeout(r, 5 + upTo(20)));
        const [rows] = (await rival.raw(
          "select id from information_schema.processlist where db = ? and command <> 'Sleep' and info not like '%processlist%'",
          [shops.at.name],
        )) as [{ id: number }[]];
        const one = rows[upTo(rows.length)];
        if (one === undefined) continue;
        const whole = chance() < 0.2;
        await rival.raw(whole ? `kill ${one.id}` : `kill query ${one.id}`).then(
          () => void (done[whole ? "connections" : "queries"] += 1),
          () => undefined,
        );
      }
    };
    const trouble = [locks(), locks(), kills()];
    const sold = new Map<string, number>();
    /** As a page does: the same id until it is told yes or no. */
    const buys = async (name: string): Promise<void> => {
      // Until there was trouble enough to speak of, however fast this machine is.
      for (let n = 0; n < 30 || (troubles() <= 40 && n < 900); n += 1)
        for (let tries = 0; tries < 60; tries += 1) {
          const said = await s.purchase(name, "bell", 3, `${name}-${n}`);
          if (said.ok || said.refusal.code === "signal/duplicate") {
            sold.set(name, (sold.get(name) ?? 0) + 1);
            break;
          }
          expect(said.refusal.code).toBe("store/away");
          await new Promise((r) => setTimeout(r, 20));
        }
    };
    await Promise.all(buyers.map(buys));
    over = true;
    await Promise.all(trouble);
    await s.settled();
    expect(troubles()).toBeGreaterThan(40);
    const sales = await s.sales();
    for (const name of buyers) expect([name, sales.filter((x) => x.viewer === name).length]).toEqual([name, sold.get(name)]);
    for (const name of buyers) {
      expect(sold.get(name)).toBeGreaterThanOrEqual(30);
      expect([name, await s.balance(name)]).toEqual([name, 3_000 - 3 * (sold.get(name) ?? 0)]);
    }
    await s.sound();
    await rival.destroy();
    await shops.end();
  }, 120_000);
});
