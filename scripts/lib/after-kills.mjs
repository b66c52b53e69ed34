// What must be so after a run of kills: everything that was answered is there, once, and every sum is right.
const wait = (ms) => new Promise((resolve) => setTimeout(resolve, ms));
const channel = "saltmarsh-kiln";

/** The result is told, and the engine killed while it is paid: everybody is paid once, and nothing is left in the pot. */
export async function payOut({ stack, command, sql, wrong, done, seed }) {
  await command("kiln-prediction", `faults-lock-${seed}`, { do: "lock" });
  const told = command("kiln-prediction", `faults-result-${seed}`, { do: "result", outcome: "A" });
  await wait(5);
  await stack.kill("engine");
  await stack.revive("engine");
  if ((await told)?.ok !== true) wrong.push("the prediction's result was not taken");
  for (let i = 0; i < 200; i += 1) {
    const [state] = await sql("select durable from game_states where game_id = 'kiln-prediction'").catch(() => []);
    const now = typeof state?.durable === "string" ? JSON.parse(state.durable) : state?.durable;
    if (now?.round === null || now?.round?.phase === "done") break;
    await wait(100);
  }
  const [paid] = await sql("select count(*) as n from transfers where reason = 'won'");
  done.payouts = Number(paid.n);
  const [pot] = await sql("select balance from own_accounts o join channels c on c.num = o.channel where c.id = ? and o.account = 6", [
    channel,
  ]);
  if (Number(pot?.balance ?? 0) !== 0) wrong.push(`${pot.balance} points are left in the pot after everybody was paid`);
}

/** `done` says what was told to be done; what is written must say the same. Tells in `wrong` what does not. */
export async function checkAll({ sql, event, wrong, done, sent, buyers, viewers, fromMs }) {
  // What was answered is there, and once; what comes again changes nothing.
  const rows = await sql("select kind, body from log where source = 'event' and kind in ('tip', 'follow')");
  const paid = await sql(
    "select count(*) as n from transfers where reason = 'signal' and at_ms >= (select min(at_ms) from log where source = 'event')",
  );
  if (rows.length !== sent.length) wrong.push(`${sent.length} events were sent, ${rows.length} are in the log`);
  // Within what a day allows, each pays once, and its own row says so.
  const earning = rows.filter((r) => r.body.includes('"points/earned"')).length;
  if (Number(paid[0].n) !== earning) wrong.push(`${earning} events paid; ${paid[0].n} payments are written`);
  const twice = await sql("select channel, id, count(*) as n from once group by channel, id having n > 1");
  if (twice.length > 0) wrong.push("an id stands twice");
  for (const id of sent.slice(0, 20)) await event(id, "app.izzam.follow.v1", { viewer: { id: viewers[0], name: viewers[0] } });
  const after = await sql("select body from log where source = 'event' and kind in ('tip', 'follow')");
  if (after.length !== rows.length) wrong.push(`${after.length - rows.length} events were taken a second time`);
  const negative = await sql("select ext, balance from viewers where balance < 0");
  if (negative.length > 0) wrong.push(`below none: ${negative.map((n) => n.ext).join(", ")}`);
  done.tips = rows.filter((r) => r.kind === "tip").length;
  done.follows = rows.filter((r) => r.kind === "follow").length;
  const sold = await sql(
    "select v.ext as who, count(*) as n from sales s join viewers v on v.id = s.viewer where s.at_ms >= ? group by v.ext",
    [fromMs],
  );
  const soldTo = (names) => sold.filter((r) => names.includes(r.who)).reduce((sum, r) => sum + Number(r.n), 0);
  done["bought in chat"] = soldTo(viewers);
  const written = soldTo(buyers);
  if (written !== done["bought on pages"])
    wrong.push(`pages said that ${done["bought on pages"]} things were sold; ${written} sales are written`);
  const names = buyers.map((b) => `'${b}'`).join(", ");
  const [came] = await sql(
    `select count(*) as n from records r join viewers v on v.id = r.viewer where r.game_id = 'weekly-mug' and r.kind = 'entry' and v.ext in (${names}) and r.from_ms >= ?`,
    [fromMs],
  );
  if (Number(came.n) !== done["entries on pages"])
    wrong.push(`pages said that ${done["entries on pages"]} entries were taken; ${came.n} are written`);
  const [put] = await sql(
    `select count(*) as n from transfers t join viewers v on v.id = t.account where t.reason = 'staked' and v.ext in (${names}) and t.at_ms >= ?`,
    [fromMs],
  );
  if (Number(put.n) !== done["stakes on pages"])
    wrong.push(`pages said that ${done["stakes on pages"]} stakes were taken; ${put.n} are written`);
  for (const [what, n] of Object.entries(done)) if (n === 0) wrong.push(`there were no ${what}, so nothing was tested of them`);
  // The boss stands where its blows brought it.
  const blows = await sql("select body from records where game_id = 'old-spall' and kind in ('hit', 'heal', 'undo') order by id");
  for (let i = 1; i < blows.length; i += 1) {
    const [before, now] = [JSON.parse(blows[i - 1].body), JSON.parse(blows[i].body)];
    if (before.after > 0 && now.before !== before.after)
      wrong.push(`blow ${i} begins at ${now.before}, the one before it ended at ${before.after}`);
  }
}
