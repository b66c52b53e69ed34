import { afterAll, beforeAll, describe, expect, test } from "@jest/globals";
import { ok } from "../../core/kernel/refusal";
import { mariadbEngineStore } from "../adapters/mariadb/engine-store";
import type { WebServices } from "../composition/web";
import type { Session } from "../ports/operator-store";
import { hashToken } from "../secrets";
import type { testDatabase } from "../testing/database";
import { may, rights } from "./rights";
import {
  browserIn,
  changePassword,
  choosePublicName,
  demoSignIn,
  endSession,
  houseOf,
  invite,
  join,
  publicNameSchema,
  removeOperator,
  setUp,
  signIn,
} from "./accounts";
import { nowMs, setupCode, testWeb } from "../testing/web";

let web: WebServices;
let owner: Session;
let db: Awaited<ReturnType<typeof testDatabase>>["db"];
let end: () => Promise<void>;

beforeAll(async () => {
  ({ web, db, end } = await testWeb("accounts_and_rights"));
});
afterAll(() => end());
const given = { code: setupCode, login: "Kiln Keeper", password: "a long password", channel: "Saltmarsh Kiln" };

describe("the first start", () => {
  test("needs the code that ./start printed", async () => {
    expect(await setUp(web, { ...given, code: "000000" }, "1.1.1.1")).toMatchObject({ ok: false, refusal: { code: "setup/code" } });
  });
  test("makes the owner, the channel and its first overlay, and signs in", async () => {
    const opened = await setUp(web, given, "1.1.1.1");
    if (!opened.ok) throw new Error(opened.refusal.code);
    owner = (await web.store.accounts.session(hashToken(opened.value.token), nowMs))!;
    expect(owner).toMatchObject({ login: "Kiln Keeper", role: "owner", channelName: "Saltmarsh Kiln" });
    expect(await web.store.overlays.overlays(owner.channelId)).toMatchObject([{ name: "Main stage", linked: false }]);
  });
  test("happens once", async () => {
    expect(await setUp(web, { ...given, login: "Another" }, "1.1.1.2")).toMatchObject({ refusal: { code: "setup/done" } });
  });
});

describe("signing in", () => {
  test("takes the name in any capitals, and only with its password", async () => {
    expect((await signIn(web, "kiln keeper", given.password, "2.2.2.2", true)).ok).toBe(true);
    expect(await signIn(web, "kiln keeper", "wrong", "2.2.2.2", true)).toMatchObject({ refusal: { code: "sign-in/wrong" } });
    expect(await signIn(web, "nobody", "wrong", "2.2.2.2", true)).toMatchObject({ refusal: { code: "sign-in/wrong" } });
  });
  test("other spellings of a name are the same name: for the password, and for how often it may be tried", async () => {
    const spellings = ["Gabled", "GABLED ", " gábled", "gabled\u200b", "ｇａｂｌｅｄ", "g\u00adabled", "Gabled  "];
    const tries = await Promise.all(spellings.map((name, i) => signIn(web, name, "wrong", `7.7.7.${i}`, true)));
    expect(tries.map((t) => (t.ok ? "" : t.refusal.code))).toEqual([...Array<string>(6).fill("sign-in/wrong"), "sign-in/too-often"]);
    expect((await signIn(web, " KILN  keeper ", given.password, "7.7.8.1", true)).ok).toBe(true);
  });
  test("six tries a minute for a name, from wherever they come", async () => {
    const tries = await Promise.all(Array.from({ length: 7 }, (_, i) => signIn(web, "guessed", "wrong", `3.3.3.${i}`, true)));
    expect(tries.filter((t) => !t.ok && t.refusal.code === "sign-in/too-often")).toHaveLength(1);
  });
  test("passwords are kept as argon2id, tokens as hashes", async () => {
    const [operator] = (await db("operators").select()) as { password_hash: string }[];
    expect(operator!.password_hash).toMatch(/^\$argon2id\$/);
    const opened = await signIn(web, "Kiln Keeper", given.password, "2.2.2.9", true);
    const sessions = JSON.stringify(await db("sessions").select());
    expect(opened.ok && sessions.includes(opened.value.token)).toBe(false);
  });
  test("a session ends when its time is up, or when it is closed", async () => {
    const opened = await signIn(web, "Kiln Keeper", given.password, "2.2.2.8", true);
    if (!opened.ok) throw new Error("refused");
    const hash = hashToken(opened.value.token);
    expect(await web.store.accounts.session(hash, opened.value.expiresMs)).toBeNull();
    expect(await web.store.accounts.session(hash, nowMs)).not.toBeNull();
    await web.store.accounts.closeSession(hash);
    expect(await web.store.accounts.session(hash, nowMs)).toBeNull();
  });
  test("one click is for demo installations only", async () =>
    expect(await demoSignIn(web, "owner", true)).toMatchObject({ refusal: { code: "sign-in/no-demo" } }));
  test("the demo’s accounts open nothing from another computer: not by one click, not by the password everybody knows", async () => {
    const demo = { ...web, env: { ...web.env, demo: true } };
    expect(await demoSignIn(demo, "owner", false)).toMatchObject({ refusal: { code: "sign-in/demo-elsewhere" } });
    await db("operators").update({ demo: true });
    expect(await signIn(demo, "Kiln Keeper", given.password, "10.0.0.5", false)).toMatchObject({
      refusal: { code: "sign-in/demo-elsewhere" },
    });
    expect((await signIn(demo, "Kiln Keeper", given.password, "127.0.0.1", true)).ok).toBe(true);
    await db("operators").update({ demo: false });
    expect((await signIn(demo, "Kiln Keeper", given.password, "10.0.0.6", false)).ok).toBe(true);
  });
});

describe("one's own account, and who works on the channel", () => {
  const sessionOf = async (opened: Awaited<ReturnType<typeof signIn>>): Promise<Session> => {
    if (!opened.ok) throw new Error(opened.refusal.code);
    return (await web.store.accounts.session(hashToken(opened.value.token), nowMs))!;
  };
  const enter = (login: string, password: string, n: number) => signIn(web, login, password, `9.9.9.${n}`, true, "Firefox on Linux");
  test("viewers read a name that one chooses, and never one that somebody signs in by", async () => {
    const here = await sessionOf(await enter("Kiln Keeper", given.password, 3));
    expect([here.publicName, houseOf(here)]).toEqual(["", { name: "the house", role: "owner" }]);
    for (const secret of ["Kiln Keeper", "kiln  KEEPER", "Kíln Keeper"])
      expect(await choosePublicName(web, here, secret)).toMatchObject({ ok: false, refusal: { code: "account/public-login" } });
    expect(await choosePublicName(web, here, "Maria at the wheel")).toEqual({ ok: true, value: null });
    const again = await sessionOf(await enter("Kiln Keeper", given.password, 4));
    expect(houseOf(again)).toEqual({ name: "Maria at the wheel", role: "owner" });
    expect((await choosePublicName(web, again, "")).ok).toBe(true);
    expect(publicNameSchema.safeParse("two\nlines").success).toBe(false);
  });
  test("a password is changed with the old one, and signs out everywhere else", async () => {
    const here = await sessionOf(await enter("Kiln Keeper", given.password, 1));
    const there = await sessionOf(await enter("Kiln Keeper", given.password, 2));
    expect(
      (await web.store.accounts.sessions(here.operatorId, nowMs)).filter((x) => x.label === "Firefox on Linux").length,
    ).toBeGreaterThanOrEqual(2);
    expect(await changePassword(web, here, "wrong", "another long one")).toMatchObject({ refusal: { code: "account/wrong-password" } });
    expect((await changePassword(web, here, given.password, "another long one")).ok).toBe(true);
    expect(await web.store.accounts.session(there.tokenHash, nowMs)).toBeNull();
    expect(await web.store.accounts.session(here.tokenHash, nowMs)).not.toBeNull();
    expect((await enter("Kiln Keeper", given.password, 3)).ok).toBe(false);
    expect((await enter("Kiln Keeper", "another long one", 4)).ok).toBe(true);
    await changePassword(web, here, "another long one", given.password);
  });
  test("an invitation makes one moderator, once; its token is kept as a hash; names that look alike are taken", async () => {
    const me = await sessionOf(await enter("Kiln Keeper", given.password, 5));
    const made = await invite(web, me);
    if (!made.ok) throw new Error("refused");
    const { token } = made.value;
    expect(JSON.stringify(await db("invites").select())).not.toContain(token);
    expect(await join(web, { token, login: "KILN keéper", password: "long enough 1" }, "9.9.8.1")).toMatchObject({
      refusal: { code: "operator/name-taken" },
    });
    const both = await Promise.all(
      ["Sponge One", "Sponge Two"].map((login) => join(web, { token, login, password: "long enough 1" }, "9.9.8.2")),
    );
    expect(both.filter((b) => b.ok)).toHaveLength(1);
    expect(both.find((b) => !b.ok)).toMatchObject({ refusal: { code: "invite/unknown" } });
    const joined = await sessionOf(both.find((b) => b.ok)!);
    expect(joined).toMatchObject({ role: "moderator", channelId: owner.channelId });
    // Too old, ended, or never made: the same answer.
    const old = await invite({ ...web, clock: { now: () => nowMs - 8 * 86_400_000 } }, me);
    expect(await join(web, { token: old.ok ? old.value.token : "", login: "Late", password: "long enough 1" }, "9.9.8.3")).toMatchObject({
      refusal: { code: "invite/unknown" },
    });
    const third = await invite(web, me);
    await web.store.accounts.endInvites(me.channelId);
    expect((await join(web, { token: third.ok ? third.value.token : "", login: "Late", password: "long enough 1" }, "9.9.8.4")).ok).toBe(
      false,
    );
  });
  test("who is removed is signed out at once; nobody removes themselves or the last owner, and two owners at once leave one", async () => {
    const me = await sessionOf(await enter("Kiln Keeper", given.password, 6));
    const operators = await web.store.accounts.operators(me.channelId, nowMs);
    const moderator = operators.find((o) => o.role === "moderator")!;
    expect(await removeOperator(web, me, me.operatorId)).toMatchObject({ refusal: { code: "operator/oneself" } });
    expect(await web.store.accounts.removeOperator(me.channelId, me.operatorId)).toMatchObject({
      refusal: { code: "operator/last-owner" },
    });
    expect(await removeOperator(web, me, moderator.id)).toEqual(ok({ login: moderator.login }));
    expect(await removeOperator(web, me, moderator.id)).toMatchObject({ refusal: { code: "operator/unknown" } });
    expect((await signIn(web, moderator.login, "long enough 1", "9.9.7.1", true)).ok).toBe(false);
    const again = await invite(web, me);
    const second = await join(
      web,
      { token: again.ok ? again.value.token : "", login: "Second Owner", password: "long enough 1" },
      "9.9.7.2",
    );
    const two = await sessionOf(second);
    await db("memberships").where({ operator_id: two.operatorId }).update({ role: "owner" });
    const done = await Promise.all([
      web.store.accounts.removeOperator(me.channelId, two.operatorId),
      web.store.accounts.removeOperator(me.channelId, two.operatorId),
    ]);
    expect(done.filter((d) => d.ok)).toHaveLength(1);
  });
  test("a session is ended by its owner only, and the channel takes another name", async () => {
    const here = await sessionOf(await enter("Kiln Keeper", given.password, 7));
    const there = await sessionOf(await enter("Kiln Keeper", given.password, 8));
    const line = (await web.store.accounts.sessions(here.operatorId, nowMs)).find((x) => x.tokenHash === there.tokenHash)!;
    expect(await web.store.accounts.endSessions("somebody-else" as Session["operatorId"], line.id, "")).toBe(0);
    expect((await endSession(web, here, line.id)).ok).toBe(true);
    expect(await endSession(web, here, line.id)).toMatchObject({ refusal: { code: "session/unknown" } });
    await web.store.accounts.renameChannel(here.channelId, "Saltmarsh Kiln & Co");
    expect((await mariadbEngineStore(db).channel(here.channelId))!.name).toBe("Saltmarsh Kiln & Co");
  });
  test("a browser is told in a few words, and nothing else of it is kept", () => {
    expect(browserIn("Mozilla/5.0 (Windows NT 10.0; Win64; x64) AppleWebKit/537.36 Chrome/126.0 Safari/537.36 Edg/126.0")).toBe(
      "Edge on Windows",
    );
    expect(browserIn("Mozilla/5.0 (X11; Linux x86_64; rv:128.0) Gecko/20100101 Firefox/128.0")).toBe("Firefox on Linux");
    expect(browserIn("<script>")).toBe("a browser");
  });
});

describe("rights", () => {
  test("a moderator runs the games; links and connections are the owner's", () => {
    expect(Object.keys(rights).filter((a) => may("owner", a as keyof typeof rights))).toEqual(Object.keys(rights));
    expect([
      may("moderator", "hush"),
      may("moderator", "game.publish"),
      may("moderator", "overlay.link"),
      may("moderator", "chat.connect"),
    ]).toEqual([true, true, false, false]);
  });
});

// Last: it uses up what a minute allows for the one name there is.
describe("guesses", () => {
  test("of others never shut out a browser that signed in before; it has a limit of its own, and only for its own name", async () => {
    const first = await signIn(web, "Kiln Keeper", given.password, "4.4.4.1", true);
    const device = first.ok ? first.value.device : "";
    await Promise.all(Array.from({ length: 8 }, (_, i) => signIn(web, "kiln keeper", "wrong", `4.4.5.${i}`, true)));
    const code = async (name: string, password: string, cookie: string): Promise<string> => {
      const done = await signIn(web, name, password, "4.4.6.1", true, "", cookie);
      return done.ok ? "in" : done.refusal.code;
    };
    expect(await code("Kiln Keeper", given.password, "")).toBe("sign-in/too-often");
    for (const forged of [`${device.slice(0, -4)}AAAA`, "v1.", "constructor", "v1.AAAA", `v1.${"A".repeat(100)}`])
      expect(await code("Kiln Keeper", given.password, forged)).toBe("sign-in/too-often");
    expect(await code("Kiln Keeper", given.password, device)).toBe("in");
    // With it one guesses no faster, and at no other name.
    const guesses = await Promise.all(Array.from({ length: 12 }, () => code("Kiln Keeper", "wrong", device)));
    expect(guesses.filter((g) => g === "sign-in/too-often")).toHaveLength(2);
    const elsewhere = await Promise.all(Array.from({ length: 8 }, () => code("Somebody Else", "wrong", device)));
    expect(elsewhere.filter((g) => g === "sign-in/too-often")).toHaveLength(2);
  });
});
