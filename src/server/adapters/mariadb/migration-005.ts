import type { Knex } from "knex";
import { loginKey, viewerId } from "../../../core/kernel/text";
import { makeGrowing, makeLogs, ownCodes } from "./lean-tables";
import { type Row, text } from "./rows";
import { balancesFromJournal } from "./ledger-check";

const atOnce = 1_000;

/**
 * From long rows to lean ones. Every id of a viewer becomes one integer key; ids that differ only in how
 * chat and events wrote them become one person, whose points are added up. New tables are filled and
 * checked before an old one goes, so a step that was interrupted begins again from the old ones.
 */
export async function toLeanTables(db: Knex): Promise<void> {
  // The first try may have come as far as renaming nothing; the old sales go by another name until the end.
  if (await db.schema.hasTable("point_entries")) {
    if (!(await db.schema.hasTable("old_sales"))) await db.raw("rename table sales to old_sales");
  } else await db.raw("create table if not exists old_sales (id int)");
  if (!(await db.schema.hasColumn("channels", "num")))
    await db.raw("alter table channels add column num int unsigned not null auto_increment unique");
  const oldest = (await db("signals").min("at_ms as at").first()) as Row | undefined;
  await makeGrowing(db);
  await makeLogs(db, Number(oldest?.["at"] ?? Date.now()), Date.now());
  await db.raw("drop table if exists old_ids");
  await db.raw(
    "create table old_ids (channel_id varchar(26) character set ascii collate ascii_bin not null, old varbinary(300) not null, viewer int unsigned not null, primary key (channel_id, old))",
  );
  // States say which version wrote them; those there are were written by the first.
  await db.raw("alter table game_states add column if not exists version smallint unsigned not null default 1");
  await db.raw(
    `create table if not exists invites (token_hash varchar(64) character set ascii collate ascii_bin not null primary key,
       channel_id varchar(26) character set ascii collate ascii_bin not null, made_by varchar(40) not null,
       created_ms bigint not null, expires_ms bigint not null, key (channel_id)) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_unicode_ci`,
  );
  await db.raw(
    `create table if not exists installation (name varchar(40) character set ascii collate ascii_bin not null primary key,
       value longtext not null) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_unicode_ci`,
  );
  await logins(db);
  await people(db);
  await history(db);
  await ledger(db);
  await totals(db);
  await leases(db);
  await checked(db);
  for (const name of ["signals", "game_records", "point_balances", "point_entries", "point_postings", "old_sales", "old_ids"])
    await db.raw(`drop table if exists ${name}`);
}

/** Operators' names are compared in one form, byte by byte: by the column as by everything that looks them up. */
async function logins(db: Knex): Promise<void> {
  await db.raw("alter table operators modify login_key varchar(60) character set utf8mb4 collate utf8mb4_nopad_bin not null");
  const rows = (await db("operators").orderBy("created_ms").select("id", "login", "login_key")) as Row[];
  const taken = new Set<string>();
  for (const r of rows) {
    const key = loginKey(text(r["login"]));
    // Two that were let in as different stay so: the younger keeps the key it had.
    if (!taken.has(key) && key !== r["login_key"])
      await db("operators")
        .where({ id: text(r["id"]) })
        .update({ login_key: key });
    taken.add(key);
  }
}

/** One row for each person of a channel. */
async function people(db: Knex): Promise<void> {
  const sources = [
    "select channel_id, cast(substr(account, 3) as binary) as old, name, 1 as account from point_balances where account like 'v:%'",
    "select channel_id, cast(viewer as binary) as old, max(viewer_name) as name, 0 as account from old_sales group by channel_id, cast(viewer as binary)",
    "select channel_id, cast(viewer as binary) as old, max(json_value(body, '$.name')) as name, 0 as account from signals where viewer is not null group by channel_id, cast(viewer as binary)",
    "select channel_id, cast(viewer as binary) as old, max(viewer_name) as name, 0 as account from game_records where viewer is not null group by channel_id, cast(viewer as binary)",
    "select channel_id, cast(viewer as binary) as old, max(viewer_name) as name, 0 as account from viewer_sessions group by channel_id, cast(viewer as binary)",
  ];
  const nums = new Map(((await db("channels").select("id", "num")) as Row[]).map((r) => [text(r["id"]), Number(r["num"])]));
  const found = new Map<string, { channel: string; ext: string; name: string; account: boolean; olds: Set<string> }>();
  for (const source of sources) {
    const [rows] = (await db.raw(source)) as [{ channel_id: string; old: Buffer; name: string | null; account: number }[]];
    for (const r of rows) {
      const old = r.old.toString("utf8");
      const ext = viewerId(old) || "someone";
      const key = `${r.channel_id} ${ext}`;
      const one = found.get(key) ?? { channel: r.channel_id, ext, name: "", account: false, olds: new Set<string>() };
      if (one.name === "") one.name = r.name ?? "";
      if (Number(r.account) === 1) one.account = true;
      one.olds.add(old);
      found.set(key, one);
    }
  }
  const all = [...found.values()].filter((p) => nums.has(p.channel));
  for (let from = 0; from < all.length; from += atOnce) {
    const some = all.slice(from, from + atOnce);
    await db<Row>("viewers").insert(
      some.map((p) => ({ channel: nums.get(p.channel), ext: p.ext, name: p.name === "" ? p.ext : p.name, has_account: p.account })),
    );
  }
  const keys = new Map(
    ((await db("viewers").select("id", "channel", "ext")) as Row[]).map((r) => [
      `${Number(r["channel"])} ${text(r["ext"])}`,
      Number(r["id"]),
    ]),
  );
  const olds = all.flatMap((p) =>
    [...p.olds].map((old) => ({
      channel_id: p.channel,
      old: Buffer.from(old, "utf8"),
      viewer: keys.get(`${nums.get(p.channel) ?? 0} ${p.ext}`),
    })),
  );
  for (let from = 0; from < olds.length; from += atOnce) await db("old_ids").insert(olds.slice(from, from + atOnce));
  // Who is tied to a viewer page keeps being so.
  if (await db.schema.hasColumn("viewer_sessions", "viewer_name")) {
    if (!(await db.schema.hasColumn("viewer_sessions", "viewer_key")))
      await db.raw("alter table viewer_sessions add column viewer_key int unsigned not null default 0");
    await db.raw(
      "update viewer_sessions s join old_ids o on o.channel_id = s.channel_id and o.old = cast(s.viewer as binary) set s.viewer_key = o.viewer",
    );
    await db.raw("delete from viewer_sessions where viewer_key = 0");
    await db.raw(
      "alter table viewer_sessions drop index viewer_sessions_channel_id_viewer_index, drop column viewer, drop column viewer_name, add index (channel_id), add index (viewer_key)",
    );
  }
}

const bits = `(if(json_contains(s.body, '"viewer"', '$.roles'), 1, 0) + if(json_contains(s.body, '"member"', '$.roles'), 2, 0)
  + if(json_contains(s.body, '"vip"', '$.roles'), 4, 0) + if(json_contains(s.body, '"moderator"', '$.roles'), 8, 0)
  + if(json_contains(s.body, '"streamer"', '$.roles'), 16, 0))`;

/** What was said and what happened; ids that must not come again; what games keep for good. */
async function history(db: Knex): Promise<void> {
  await db.raw(
    `insert into chat_log (channel, at_ms, seq, viewer, roles, body)
     select c.num, s.at_ms, s.seq, coalesce(o.viewer, 0), coalesce(${bits}, 0), coalesce(json_value(s.body, '$.text'), '')
     from signals s join channels c on c.id = s.channel_id
     left join old_ids o on o.channel_id = s.channel_id and o.old = cast(s.viewer as binary)
     where s.kind = 'message' and s.source = 'chat'`,
  );
  await db.raw(
    `insert into log (channel, at_ms, seq, viewer, kind, source, body)
     select c.num, s.at_ms, s.seq, o.viewer, s.kind, s.source, s.body
     from signals s join channels c on c.id = s.channel_id
     left join old_ids o on o.channel_id = s.channel_id and o.old = cast(s.viewer as binary)
     where not (s.kind = 'message' and s.source = 'chat')`,
  );
  // Chat's own ids only where something was bought: what flew by once may fly by twice.
  await db.raw(
    `insert ignore into once (channel, id, seq, at_ms)
     select c.num, unhex(substr(sha2(concat(cast(s.source as binary), 0x00, cast(s.signal_id as binary)), 256), 1, 32)), s.seq, s.at_ms
     from signals s join channels c on c.id = s.channel_id
     where s.source in ('event', 'page', 'operator')
        or (s.source = 'chat' and exists (select 1 from old_sales x where x.channel_id = s.channel_id and x.id = concat('s', s.seq)))`,
  );
  await db.raw(
    `insert into daily_counts (channel, day, kind, n)
     select c.num, floor(s.at_ms / 86400000), s.kind, count(*) from signals s join channels c on c.id = s.channel_id group by 1, 2, 3`,
  );
  await db.raw(
    `insert into records (channel, game_id, seq, kind, viewer, from_ms, to_ms, body)
     select c.num, r.game_id, r.seq, r.kind, o.viewer, r.from_ms, r.to_ms, r.body
     from game_records r join channels c on c.id = r.channel_id
     left join old_ids o on o.channel_id = r.channel_id and o.old = cast(r.viewer as binary)
     order by r.id`,
  );
}

/** Entries and their postings become transfers; a purchase is a row with its sale. */
async function ledger(db: Knex): Promise<void> {
  // Sales that were not made by a signal (a demo's past) get numbers of their own, below all others.
  await db.raw("alter table old_sales add column if not exists num bigint null");
  await db.raw("update old_sales set num = cast(substr(id, 2) as signed) where id regexp '^s[0-9]+$'");
  await db.raw("set @n := 0");
  await db.raw("update old_sales set num = (@n := @n - 1) where num is null order by at_ms desc, id desc");
  await db.raw(
    `insert into sales (channel, seq, at_ms, reward_id, reward_name, viewer, price, held, text, state, show_id, decided_by, times, shown, code)
     select c.num, s.num, s.at_ms, s.reward_id, s.reward_name, o.viewer, s.price,
            exists (select 1 from point_entries e where e.channel_id = s.channel_id and e.entry_key = concat('buy:', s.id) and e.reason = 'asked'),
            s.text, s.state, s.show_id, s.decided_by, s.times, s.shown, s.code
     from old_sales s join channels c on c.id = s.channel_id
     join old_ids o on o.channel_id = s.channel_id and o.old = cast(s.viewer as binary)`,
  );
  await db.raw("insert into open_sales (channel, seq) select channel, seq from sales where state = 'waiting'");
  await db.raw(
    `insert into sale_details (channel, seq, sealed, gone_ms)
     select c.num, s.num, s.detail_sealed, if(s.state = 'waiting', null, s.decided_ms + 600000)
     from old_sales s join channels c on c.id = s.channel_id where s.detail_sealed is not null`,
  );
  const code = (account: string): string =>
    `case ${account} when 'issued' then ${ownCodes.issued} when 'spent' then ${ownCodes.spent} else ${ownCodes.held} end`;
  // A purchase stands with its sale, and nowhere else.
  const bought =
    "exists (select 1 from old_sales s where s.channel_id = e.channel_id and e.entry_key = concat('buy:', s.id) and s.price > 0)";
  const on = "p.channel_id = e.channel_id and p.seq = e.seq and p.n = e.n";
  const owns =
    "(select count(*) from point_postings q where q.channel_id = e.channel_id and q.seq = e.seq and q.n = e.n and q.account not like 'v:%')";
  const viewersIn =
    "(select count(*) from point_postings q where q.channel_id = e.channel_id and q.seq = e.seq and q.n = e.n and q.account like 'v:%')";
  const place = "row_number() over (partition by e.channel_id, e.seq order by e.n, p.account)";
  await db.raw(
    `insert into transfers (channel, seq, n, at_ms, reason, account, against, amount, about, \`by\`)
     select c.num, e.seq, ${place}, e.at_ms, e.reason,
            if(p.account like 'v:%', o.viewer, if(${viewersIn} = 0, ${code("p.account")}, ${ownCodes.passed})),
            if(p.account like 'v:%',
               if(${owns} = 1 and ${viewersIn} = 1 or e.reason in ('presence', 'opening'),
                  (select ${code("q.account")} from point_postings q where q.channel_id = e.channel_id and q.seq = e.seq and q.n = e.n and q.account not like 'v:%' limit 1),
                  ${ownCodes.passed}),
               if(${viewersIn} = 0,
                  (select ${code("q.account")} from point_postings q where q.channel_id = e.channel_id and q.seq = e.seq and q.n = e.n and q.account <> p.account limit 1),
                  ${code("p.account")})),
            if(p.account like 'v:%' or ${viewersIn} = 0, p.amount, -p.amount),
            e.about, e.by
     from point_entries e join point_postings p on ${on} join channels c on c.id = e.channel_id
     left join old_ids o on p.account like 'v:%' and o.channel_id = e.channel_id and o.old = cast(substr(p.account, 3) as binary)
     where not ${bought}
       and (p.account like 'v:%'
            or (${viewersIn} = 0 and p.amount < 0)
            or (${viewersIn} > 1 and e.reason not in ('presence', 'opening')))`,
  );
  await db.raw(
    `update viewers v join (
       select o.viewer, max(b.day) as day from point_balances b
       join old_ids o on o.channel_id = b.channel_id and o.old = cast(substr(b.account, 3) as binary)
       where b.account like 'v:%' group by o.viewer) d on d.viewer = v.id
     set v.day = d.day`,
  );
  await db.raw(
    `update viewers v join (
       select o.viewer, b.day, sum(b.earned) as earned from point_balances b
       join old_ids o on o.channel_id = b.channel_id and o.old = cast(substr(b.account, 3) as binary)
       where b.account like 'v:%' group by o.viewer, b.day) d on d.viewer = v.id and d.day = v.day
     set v.earned = d.earned`,
  );
  for (const { id, num } of (await db("channels").select("id", "num")) as { id: string; num: number }[]) {
    void id;
    await db.raw(`update viewers v join (${balancesFromJournal}) j on j.account = v.id set v.balance = j.balance where v.channel = ?`, [
      ...Array(6).fill(num),
      num,
    ]);
    await db.raw(
      `insert into own_accounts (channel, account, balance) select ?, account, balance from (${balancesFromJournal}) j where account < 100`,
      [num, ...Array(6).fill(num)],
    );
  }
}

async function totals(db: Knex): Promise<void> {
  await db.raw(
    `insert into reward_totals (channel, reward_id, name, sold, handed, points)
     select channel, reward_id, max(reward_name), sum(state <> 'refunded'), sum(code <> ''), sum(if(state <> 'refunded', price, 0))
     from sales group by channel, reward_id`,
  );
  const flows = `select channel, seq, at_ms, if(against = 1, amount, 0) as made, if(against = 2, -amount, 0) + if(account = 2, amount, 0) as spent from transfers
    union all select channel, seq, at_ms, 0, if(held = 1, 0, price) from sales`;
  await db.raw(
    `insert into daily_points (channel, day, made, spent, from_seq)
     select channel, floor(at_ms / 86400000), sum(made), sum(spent), min(seq) from (${flows}) f group by 1, 2`,
  );
  // Shows that are over are known by their records; one that runs begins its sum anew.
  await db.raw(
    `insert into show_points (channel, show_id, made, spent, from_seq)
     select r.channel, coalesce(json_value(r.body, '$.id'), concat('at-', r.from_ms)), sum(f.made), sum(f.spent), min(f.seq)
     from records r join (${flows}) f on f.channel = r.channel and f.at_ms between r.from_ms and r.to_ms
     where r.kind = 'show' group by 1, 2
     on duplicate key update made = values(made)`,
  );
  await db.raw(
    `update viewers v join (
       select account, sum(if(reason in ('presence', 'signal', 'opening') and amount > 0, amount, 0)) as e,
              sum(if(reason in ('bought', 'asked', 'refunded'), -amount, 0)) as s, max(at_ms) as at from transfers where account >= 100 group by account) t on t.account = v.id
     set v.earned_ever = t.e, v.spent_ever = t.s, v.moved_ms = t.at`,
  );
  await db.raw(
    `update viewers v join (select viewer, sum(price) as s, max(at_ms) as at from sales group by viewer) t on t.viewer = v.id
     set v.spent_ever = v.spent_ever + t.s, v.moved_ms = greatest(coalesce(v.moved_ms, 0), t.at)`,
  );
}

async function leases(db: Knex): Promise<void> {
  await db.raw("drop table if exists leases");
  await db.raw(
    `create table leases (channel INT UNSIGNED NOT NULL PRIMARY KEY, owner VARCHAR(64) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
       epoch BIGINT UNSIGNED NOT NULL, until_ms BIGINT NOT NULL, last_seq BIGINT NOT NULL) ENGINE=InnoDB`,
  );
  await db.raw(
    `insert into leases (channel, owner, epoch, until_ms, last_seq)
     select c.num, '', 0, 0, coalesce((select max(s.seq) from signals s where s.channel_id = c.id), 0) from channels c`,
  );
}

/** What each person has after it is what their accounts had before it, to the point; or nothing is thrown away. */
async function checked(db: Knex): Promise<void> {
  const [rows] = (await db.raw(
    `select v.channel, v.ext, v.balance, sum(b.balance) as before_ from viewers v join old_ids o on o.viewer = v.id
     join point_balances b on b.channel_id = o.channel_id and b.account like 'v:%' and cast(substr(b.account, 3) as binary) = o.old
     group by v.id having v.balance <> sum(b.balance) limit 5`,
  )) as [Row[]];
  if (rows.length > 0)
    throw new Error(
      `The points of ${rows.map((r) => `${text(r["ext"])} (${text(r["before_"])}, now ${text(r["balance"])})`).join(", ")} would not be the same after the upgrade. Nothing was changed; please keep this message.`,
    );
}
