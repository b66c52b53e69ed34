import { afterAll, beforeAll, describe, expect, test } from "@jest/globals";
import sharp from "sharp";
import { wholePlace } from "../../core/wire/messages";
import { emoteWall } from "../../core/games/emote-wall/definition";
import { gameId } from "../../core/kernel/ids";
import type { Viewer } from "../../core/signals/signal";
import type { LogRow } from "../ports/engine-store";
import { ok } from "../../core/kernel/refusal";
import { mariadbEngineStore } from "../adapters/mariadb/engine-store";
import type { WebServices } from "../composition";
import type { Session } from "../ports/operator-store";
import { hashToken } from "../secrets";
import type { testDatabase } from "../testing/database";
import { nowMs, testWeb } from "../testing/web";
import { offerPairing, pair } from "./remotes";
import { type Action, may, mayRemote, rights } from "./rights";
import { browserIn, changePassword, demoSignIn, endSession, invite, join, removeOperator, setUp, signIn } from "./accounts";
import { saveChat } from "./chat";
import { addEmote, emoteWordSchema, removeEmote, renameEmote, restoreEmote } from "./emotes";
import { channelId } from "../../core/kernel/ids";
import { newToken } from "../secrets";
import { bringBack, createGame, placeOf, publish, removeGame, saveDraft } from "./games";
import { bookOf, homeCurrency } from "./books";
import { endOldSecret, eventSecret, replaceTrigger, revokeTrigger, rotateEventSecret, triggerToken } from "./events";
import { linkToken, replaceLink, revokeLink } from "./overlays";
import { addProps, propsWithUses, replaceProp, reshapeProp } from "./props";
import { refusalInWords } from "./words";

let web: WebServices;
let owner: Session;
let db: Awaited<ReturnType<typeof testDatabase>>["db"];
let end: () => Promise<void>;

beforeAll(async () => {
  ({ web, db, end } = await testWeb("operator"));
});
afterAll(() => end());
const given = { code: "246810", login: "Kiln Keeper", password: "a long password", channel: "Saltmarsh Kiln" };

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

describe("a paired phone", () => {
  test("is paired by a code that works once, in any writing, and is told apart from its owner", async () => {
    const offer = await offerPairing(web, owner);
    if (!offer.ok) throw new Error(offer.refusal.code);
    const { code } = offer.value;
    expect(code).toMatch(/^[A-HJKMNP-TV-Z2-9]{8}$/);
    expect(JSON.stringify(await db("pairings").select())).not.toContain(code);
    const typed = `${code.slice(0, 4)}-${code.slice(4)}`.toLowerCase();
    const paired = await pair(web, typed, "Tom’s phone", "7.7.7.1");
    if (!paired.ok) throw new Error(paired.refusal.code);
    const session = (await web.store.accounts.session(hashToken(paired.value.token), nowMs))!;
    expect(session).toMatchObject({ remote: true, login: "Kiln Keeper (Tom’s phone)", channelId: owner.channelId });
    expect(owner.remote).toBe(false);
    expect(await pair(web, typed, "Another", "7.7.7.1")).toMatchObject({ refusal: { code: "pairing/wrong" } });
    const [phone] = await web.store.accounts.remotes(owner.channelId, nowMs);
    expect(phone).toMatchObject({ label: "Tom’s phone", by: "Kiln Keeper" });
    expect(await web.store.accounts.revokeRemote(owner.channelId, phone!.id)).toBe(true);
    expect(await web.store.accounts.session(session.tokenHash, nowMs)).toBeNull();
    expect(await web.store.accounts.revokeRemote(owner.channelId, phone!.id)).toBe(false);
  });
  test("of two phones with one code at once, one is paired", async () => {
    const offer = await offerPairing(web, owner);
    const code = offer.ok ? offer.value.code : "";
    const both = await Promise.all(["a", "b", "c"].map((label) => pair(web, code, label, "7.7.7.2")));
    expect(both.filter((p) => p.ok)).toHaveLength(1);
  });
  test("ten minutes later the code is worth nothing", async () => {
    await web.store.accounts.offerPairing(hashToken("ABCDEFGH"), {
      operatorId: owner.operatorId,
      channelId: owner.channelId,
      expiresMs: nowMs,
    });
    expect(await pair(web, "ABCDEFGH", "late", "7.7.7.3")).toMatchObject({ refusal: { code: "pairing/wrong" } });
  });
  test("guessing is slowed down", async () => {
    const tries = await Promise.all(Array.from({ length: 13 }, () => pair(web, "GUESSED2", "x", "7.7.7.4")));
    expect(tries.at(-1)).toMatchObject({ refusal: { code: "sign-in/too-often" } });
  });
  test("may do what the booth's hands do, and nothing that sets anything up", () => {
    const may = (Object.keys(rights) as Action[]).filter(mayRemote);
    expect(may.sort()).toEqual(["command", "cue.fire", "held.decide", "hush", "queue.act"]);
  });
});

describe("what the booth reads of the past", () => {
  test("the tape holds what can become a mark, oldest first, and the newest when there is too much", async () => {
    const ada: Viewer = { id: "ada", name: "Ada", roles: ["member"] };
    const event = (seq: number, kind: string, viewer: Viewer, body: Record<string, unknown>, source = "event"): LogRow => ({
      seq,
      atMs: 1_000 * seq,
      kind,
      source,
      id: `past-${seq}`,
      viewer,
      body,
    });
    const bo = { ...ada, id: "bo", name: "Bo" };
    await mariadbEngineStore(db).commit(owner.channelId, {
      rows: [
        event(1, "raid", ada, { viewer: ada, viewers: 4 }),
        event(2, "message", ada, { text: "hello" }, "chat"),
        event(3, "follow", ada, { viewer: ada }),
        event(4, "raid", bo, { viewer: bo, viewers: 9 }),
      ],
      states: [],
      kept: [],
    });
    const { shows } = web.store;
    expect((await shows.tape(owner.channelId, 0, 9_000, 10)).map((r) => r.seq)).toEqual([1, 3, 4]);
    expect((await shows.tape(owner.channelId, 0, 9_000, 2)).map((r) => r.seq)).toEqual([3, 4]);
    expect((await shows.tape(owner.channelId, 3_000, 3_000, 9)).map((r) => r.seq)).toEqual([3]);
  });
  test("a viewer's card counts what they did, and a viewer nobody knows has none", async () => {
    const game = await createGame(web, owner, { kind: "boss-battle", name: "Boss" });
    const id = game.ok ? game.value.id : "";
    const hit = (viewer: string, amount: number, atMs: number, after: number) => ({
      gameId: gameId(id),
      seq: 1,
      kind: "hit",
      viewer: { id: viewer, name: viewer === "ada" ? "Ada" : viewer },
      fromMs: atMs,
      toMs: atMs,
      body: { amount, after },
    });
    await mariadbEngineStore(db).commit(owner.channelId, {
      rows: [],
      states: [],
      kept: [hit("ada", 30, 100_000, 70), hit("bo", 50, 200_000, 20), hit("ada", 15, 700_000, 5)],
    });
    const { shows } = web.store;
    expect(await shows.viewer(owner.channelId, "ada")).toMatchObject({
      name: "Ada",
      roles: ["member"],
      messages: 1,
      hits: { count: 2, damage: 45 },
      reigns: 0,
      firstMs: 1_000,
    });
    expect(await shows.viewer(owner.channelId, "nobody")).toBeNull();
    const fight = await shows.fight(owner.channelId, id, 0, 900_000);
    expect(fight).toMatchObject({
      points: [{ health: 70 }, { health: 20 }, { health: 5 }],
      leader: { name: "bo", damage: 50 },
      recent: { damage: 15, minutes: 10 },
    });
    expect((await shows.fight(owner.channelId, id, 500_000, 900_000)).leader).toEqual({ name: "Ada", damage: 15 });
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

describe("a game from draft to version", () => {
  let game: string;
  test("is made with the defaults and shows nowhere until it is published", async () => {
    const made = await createGame(web, owner, { kind: "emote-wall", name: "Sparks" });
    game = made.ok ? made.value.id : "";
    const mine = (await web.store.games.games(owner.channelId)).filter((g) => g.id === game);
    expect(mine).toMatchObject([{ name: "Sparks", version: 0, changed: true }]);
    // A channel has its show from the first day; a game that is not published does not run.
    expect((await mariadbEngineStore(db).channel(owner.channelId))!.games.map((g) => g.kind)).toEqual(["show"]);
    expect(await createGame(web, owner, { kind: "no-such-game", name: "X" })).toMatchObject({ ok: false });
  });
  test("the first publishing puts it on the first overlay", async () => {
    expect(await publish(web, owner, game, 1)).toEqual(ok({ version: 1 }));
    const [overlay] = await web.store.overlays.overlays(owner.channelId);
    expect(overlay!.games).toEqual([game]);
    const row = (await mariadbEngineStore(db).channel(owner.channelId))!;
    expect([row.games.map((g) => g.kind), row.overlays[0]!.places.map((p) => p.gameId)]).toEqual([["show", "emote-wall"], [game]]);
  });
  test("nobody overwrites what they have not seen", async () => {
    const first = await saveDraft(web, owner, game, 1, { ...emoteWall.defaults, cap: 200 });
    expect(first).toEqual(ok({ revision: 2 }));
    const second = await saveDraft(web, { ...owner, login: "Moderator" }, game, 1, { ...emoteWall.defaults, cap: 300 });
    expect(second).toMatchObject({ ok: false, refusal: { code: "draft/changed-elsewhere", facts: { by: "Kiln Keeper", revision: 2 } } });
    expect((await web.store.games.draft(owner.channelId, game))!.settings).toMatchObject({ cap: 200 });
    expect(await publish(web, owner, game, 1)).toMatchObject({ refusal: { code: "draft/changed-elsewhere" } });
  });
  test("settings that break the rules are refused in words", async () => {
    const refused = await saveDraft(web, owner, game, 2, { ...emoteWall.defaults, cap: 5 });
    expect(refused.ok).toBe(false);
    if (!refused.ok) expect(refusalInWords(refused.refusal)).toMatch(/cap.*Nothing was changed\.$/);
  });
  test("any version can be brought back", async () => {
    expect(await publish(web, owner, game, 2)).toEqual(ok({ version: 2 }));
    expect((await web.store.games.versions(owner.channelId, game)).map((v) => v.version)).toEqual([2, 1]);
    expect(await bringBack(web, owner, game, 1)).toMatchObject({ ok: true, value: { settings: { cap: emoteWall.defaults.cap } } });
    expect(await bringBack(web, owner, game, 9)).toMatchObject({ refusal: { code: "version/unknown" } });
  });
  test("what another version of Izzam stored is neither opened as if it were ours nor written over", async () => {
    const made = await createGame(web, owner, { kind: "emote-wall", name: "From tomorrow" });
    const id = made.ok ? made.value.id : "";
    for (const stored of [{ ...emoteWall.defaults, schema: 99 }, { ...emoteWall.defaults, cap: "many" }, "nonsense", null]) {
      const json = JSON.stringify(stored);
      await db("games").where({ id }).update({ draft: json });
      const draft = await web.store.games.draft(owner.channelId, id);
      expect(draft?.unreadable).toMatch(/newer Izzam|can’t be read/);
      const saved = await saveDraft(web, owner, id, draft?.revision ?? 0, emoteWall.defaults);
      expect(saved.ok ? "saved" : refusalInWords(saved.refusal)).toContain("Nothing of it was changed.");
      expect(await publish(web, owner, id, draft?.revision ?? 0)).toMatchObject({ refusal: { code: "game/unreadable" } });
      expect(await db("games").where({ id }).first(db.raw("concat(draft) as draft"))).toEqual({ draft: json });
    }
    // The draft is mended; one of its versions is still of that other Izzam.
    await db("games")
      .where({ id })
      .update({ draft: JSON.stringify(emoteWall.defaults) });
    const { revision } = (await web.store.games.draft(owner.channelId, id)) ?? { revision: 0 };
    expect(await publish(web, owner, id, revision)).toEqual(ok({ version: 1 }));
    await db("game_versions")
      .where({ game_id: id })
      .update({ settings: JSON.stringify({ ...emoteWall.defaults, schema: 99 }) });
    expect(await bringBack(web, owner, id, 1)).toMatchObject({ refusal: { code: "version/unreadable" } });
    expect(await web.store.games.draft(owner.channelId, id)).toMatchObject({ unreadable: null, published: null });
  });
  test("another channel's games can't be reached", async () => {
    const other = { ...owner, channelId: "other" as typeof owner.channelId };
    expect(await saveDraft(web, other, game, 2, emoteWall.defaults)).toMatchObject({ refusal: { code: "game/unknown" } });
    expect(await publish(web, other, game, 2)).toMatchObject({ refusal: { code: "game/unknown" } });
    expect(await bringBack(web, other, game, 1)).toMatchObject({ ok: false });
    expect(await web.store.overlays.place(other.channelId, "x", game, wholePlace)).toBe(false);
  });
});

describe("an overlay's link", () => {
  const overlay = async () => (await web.store.overlays.overlays(owner.channelId))[0]!.id;
  test("is copied as it was made, kept only sealed, and gone once it is turned off", async () => {
    const made = await replaceLink(web, owner.channelId, await overlay());
    expect(await linkToken(web, owner.channelId, await overlay())).toEqual(made);
    const rows = JSON.stringify(await db("overlays").select());
    expect(made.ok && rows.includes(made.value.token)).toBe(false);
    expect(made.ok && rows.includes(hashToken(made.value.token))).toBe(true);
    await revokeLink(web, owner.channelId, await overlay());
    expect(await linkToken(web, owner.channelId, await overlay())).toMatchObject({ refusal: { code: "overlay/no-link" } });
  });
  test("replacing it makes another one", async () => {
    const [a, b] = [await replaceLink(web, owner.channelId, await overlay()), await replaceLink(web, owner.channelId, await overlay())];
    expect(a.ok && b.ok && a.value.token !== b.value.token).toBe(true);
  });
  test("with another key it can't be read, and that is said", async () => {
    await replaceLink(web, owner.channelId, await overlay());
    const other = { ...web, env: { ...web.env, appKey: Buffer.alloc(32, 1) } };
    expect(await linkToken(other, owner.channelId, await overlay())).toMatchObject({ refusal: { code: "overlay/key-changed" } });
  });
});

describe("emotes", () => {
  const png = (colour: string): Promise<Buffer> =>
    sharp({ create: { width: 20, height: 20, channels: 4, background: colour } })
      .png()
      .toBuffer();
  const list = async (): Promise<string[]> => (await web.store.emotes.emotes(owner.channelId)).map((e) => e.word);
  test("are added by picture and word; the same picture or word is found", async () => {
    expect((await addEmote(web, owner.channelId, await png("#c40"), "wobblePot")).ok).toBe(true);
    expect(await addEmote(web, owner.channelId, await png("#c40"), "other")).toMatchObject({
      refusal: { code: "emote/same-picture", facts: { word: "wobblePot" } },
    });
    expect(await addEmote(web, owner.channelId, await png("#04c"), "WÖBBLEPOT")).toMatchObject({ refusal: { code: "emote/word-taken" } });
    expect((await addEmote(web, owner.channelId, await png("#04c"), "kilnGlow")).ok).toBe(true);
    expect(await list()).toEqual(["wobblePot", "kilnGlow"]);
  });
  test("are renamed and removed, and come back while nothing took their place", async () => {
    const [first] = await web.store.emotes.emotes(owner.channelId);
    expect(await renameEmote(web, owner.channelId, first!.id, "KilnGlow")).toMatchObject({ refusal: { code: "emote/word-taken" } });
    expect((await renameEmote(web, owner.channelId, first!.id, "WobblePot")).ok).toBe(true);
    expect((await removeEmote(web, owner.channelId, first!.id)).ok).toBe(true);
    expect(await list()).toEqual(["kilnGlow"]);
    expect((await restoreEmote(web, owner.channelId, first!.id)).ok).toBe(true);
    await removeEmote(web, owner.channelId, first!.id);
    await addEmote(web, owner.channelId, await png("#0c4"), "wobblepot");
    expect(await restoreEmote(web, owner.channelId, first!.id)).toMatchObject({ refusal: { code: "emote/word-taken" } });
  });
  test.each(["a", "two words", "!roar", "/me", "x".repeat(41), "\u200B\u200B", "::"])("%j is no chat word", (word) =>
    expect(emoteWordSchema.safeParse(word).success).toBe(false),
  );
  test.each(["wobblePot", "öfchen", "漢字", "kiln_2"])("%s is one", (word) => expect(emoteWordSchema.safeParse(word).success).toBe(true));
});

describe("the chat connection", () => {
  test("keeps the password sealed, until it is forgotten", async () => {
    await saveChat(web, owner.channelId, true, { host: "x" }, "glaze and grog");
    expect(JSON.stringify(await db("chat_connections").select())).not.toContain("glaze");
    await saveChat(web, owner.channelId, true, { host: "y" }, null);
    expect(await web.store.chat.connection(owner.channelId)).toEqual({ enabled: true, settings: { host: "y" }, hasSecret: true });
    await saveChat(web, owner.channelId, false, { host: "y" }, "");
    expect((await web.store.chat.connection(owner.channelId))!.hasSecret).toBe(false);
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

describe("the rulebook and the cues", () => {
  test("are made once, published, and never made as games", async () => {
    const rules = await bookOf(web.store, owner.channelId, "rules", owner.login, nowMs);
    expect(rules.version).toBe(1);
    expect((await bookOf(web.store, owner.channelId, "rules", owner.login, nowMs)).id).toBe(rules.id);
    expect(await createGame(web, owner, { kind: "rules", name: "Another" })).toMatchObject({
      ok: false,
      refusal: { code: "game/unknown" },
    });
    expect((await web.store.overlays.overlays(owner.channelId)).flatMap((o) => o.games)).not.toContain(rules.id);
  });
  test("what can't work is refused in words at save, and nothing is changed", async () => {
    const rules = await bookOf(web.store, owner.channelId, "rules", owner.login, nowMs);
    const settings = rules.settings as Record<string, unknown>;
    const bad = { ...settings, rules: [{ id: "x" }] };
    expect(await saveDraft(web, owner, rules.id, rules.revision, bad)).toMatchObject({ ok: false, refusal: { code: "game/bad-settings" } });
    const dollars = { ...settings, money: { home: "USD", rates: [] } };
    const saved = await saveDraft(web, owner, rules.id, rules.revision, dollars);
    expect(await homeCurrency(web.store, owner.channelId)).toBe("EUR");
    await publish(web, owner, rules.id, saved.ok ? saved.value.revision : 0);
    expect(await homeCurrency(web.store, owner.channelId)).toBe("USD");
  });
});

describe("secrets of events and triggers", () => {
  test("a secret is made, read again, changed; the old one is kept for a day, or ended", async () => {
    expect(await eventSecret(web, owner.channelId)).toMatchObject({ ok: false, refusal: { code: "events/none" } });
    const first = await rotateEventSecret(web, owner.channelId);
    expect(first.ok && first.value.secret).toMatch(/^whsec_[A-Za-z0-9+/]{43}=$/);
    expect(await eventSecret(web, owner.channelId)).toEqual(first);
    expect((await web.store.events.secret(owner.channelId))?.oldUntilMs).toBe(0);
    const second = await rotateEventSecret(web, owner.channelId);
    expect(second).not.toEqual(first);
    expect((await web.store.events.secret(owner.channelId))!.oldUntilMs - nowMs).toBeGreaterThan(23 * 3_600_000);
    await endOldSecret(web, owner.channelId);
    expect((await web.store.events.secret(owner.channelId))?.oldUntilMs).toBe(0);
    // Nothing of it stands in the database in the clear.
    const rows = JSON.stringify(await db("event_sources").select());
    expect(second.ok && rows.includes(second.value.secret.slice(6))).toBe(false);
  });
  test("a trigger address is looked up by hash, replaced and turned off", async () => {
    expect(await triggerToken(web, owner.channelId, "door")).toMatchObject({ ok: false, refusal: { code: "cue/no-link" } });
    const made = await replaceTrigger(web, owner.channelId, "door");
    expect(await triggerToken(web, owner.channelId, "door")).toEqual(made);
    const row = (await mariadbEngineStore(db).channel(owner.channelId))!;
    expect(row.triggers).toEqual([{ cueId: "door", tokenHash: made.ok ? hashToken(made.value.token) : "" }]);
    await revokeTrigger(web, owner.channelId, "door");
    expect((await mariadbEngineStore(db).channel(owner.channelId))!.triggers).toEqual([]);
  });
});

describe("what is removed", () => {
  test("is seen nowhere, keeps its place while others are arranged, and comes back with it; once, and never what is no game", async () => {
    const made = await createGame(web, owner, { kind: "boss-battle", name: "Away and back" });
    const id = made.ok ? made.value.id : "";
    expect((await publish(web, owner, id, (await web.store.games.draft(owner.channelId, id))!.revision)).ok).toBe(true);
    const [overlay] = await web.store.overlays.overlays(owner.channelId);
    const stage = overlay!.id;
    await web.store.overlays.place(owner.channelId, stage, id, placeOf("boss-battle"));
    const places = async () => (await web.store.overlays.layout(owner.channelId, stage))!.places;
    expect((await places()).find((p) => p.game === id)?.place).toMatchObject({ x: 0.73, width: 0.26 });
    expect(await removeGame(web, owner, id, true)).toEqual({ ok: true, value: null });
    expect(await removeGame(web, owner, id, true)).toMatchObject({ refusal: { code: "game/unknown" } });
    expect((await places()).some((p) => p.game === id)).toBe(false);
    expect((await mariadbEngineStore(db).channel(owner.channelId))!.games.some((g) => g.id === id)).toBe(false);
    expect(await saveDraft(web, owner, id, 0, {})).toMatchObject({ refusal: { code: "game/unknown" } });
    expect(await createGame(web, owner, { kind: "", name: "X", like: id })).toMatchObject({ refusal: { code: "game/unknown" } });
    // Somebody arranges the stage meanwhile.
    await web.store.overlays.saveLayout(owner.channelId, stage, await places(), true);
    expect(await removeGame(web, owner, id, false)).toEqual({ ok: true, value: null });
    expect(await removeGame(web, owner, id, false)).toMatchObject({ refusal: { code: "game/unknown" } });
    expect((await places()).find((p) => p.game === id)?.place).toMatchObject({ x: 0.73 });
    const rules = (await web.store.games.games(owner.channelId)).find((g) => g.kind === "rules")!;
    for (const other of [rules.id, "__proto__", "nobody"])
      expect(await removeGame(web, owner, other, true)).toMatchObject({ refusal: { code: "game/unknown" } });
    await removeGame(web, owner, id, true);
  });
  test("an overlay's link stops with it, and works again when it is brought back", async () => {
    const id = newToken();
    await web.store.overlays.create(owner.channelId, { id, name: "Gone", width: 1280, height: 720, nowMs });
    const there = async () => (await mariadbEngineStore(db).channel(owner.channelId))!.overlays.some((o) => o.id === id);
    expect(await there()).toBe(true);
    expect(await web.store.overlays.setRemoved(owner.channelId, id, nowMs)).toBe(true);
    expect(await there()).toBe(false);
    expect((await web.store.overlays.removed(owner.channelId)).map((o) => o.name)).toContain("Gone");
    expect(await web.store.overlays.rename(owner.channelId, id, "Back")).toBe(true);
    expect(await web.store.overlays.setRemoved(owner.channelId, id, null)).toBe(true);
    expect(await there()).toBe(true);
    expect(await web.store.overlays.setRemoved(channelId("x"), id, nowMs)).toBe(false);
    await web.store.overlays.setRemoved(owner.channelId, id, nowMs);
  });
});

describe("props", () => {
  const tile = (colour: string): Promise<Buffer> =>
    sharp({ create: { width: 30, height: 20, channels: 4, background: colour } })
      .png()
      .toBuffer();
  test("are added, found as used, cut from the untouched source, replaced, removed and restored", async () => {
    const added = await addProps(web, owner.channelId, await tile("#a10"), "red_tile.png");
    const id = added.ok ? (added.value[0]?.id ?? "") : "";
    expect((await propsWithUses(web, owner.channelId))[0]).toMatchObject({ id, name: "red tile", kind: "picture", usedIn: [] });
    const cues = await bookOf(web.store, owner.channelId, "cues", owner.login, nowMs);
    const look = { x: 0.5, y: 0.5, size: 0.2, entrance: "fade" };
    const show = { do: "show", picture: id, sound: "", volume: 80, text: "", ms: 1_000, queue: "", look };
    const cue = {
      id: "c",
      name: "C",
      key: "",
      word: "",
      roles: ["streamer"],
      cooldownMs: 0,
      kind: "once",
      effects: [show],
      offEffects: [],
    };
    await saveDraft(web, owner, cues.id, cues.revision, { schema: 3, cues: [cue], hiddenWords: [] });
    expect((await propsWithUses(web, owner.channelId))[0]?.usedIn).toEqual(["Cues"]);
    const cut = { crop: { x: 0, y: 0, width: 0.5, height: 1 }, grid: { columns: 1, rows: 1, frames: 1 }, frameMs: 0 };
    expect((await reshapeProp(web, owner.channelId, id, cut)).ok).toBe(true);
    expect((await propsWithUses(web, owner.channelId))[0]?.facts).toMatchObject({ frameWidth: 15, sourceWidth: 30 });
    expect((await replaceProp(web, owner.channelId, id, await tile("#0a1"))).ok).toBe(true);
    expect(await replaceProp(web, owner.channelId, id, Buffer.from("nothing"))).toMatchObject({ ok: false });
    await web.store.props.remove(owner.channelId, id, nowMs);
    expect(await propsWithUses(web, owner.channelId)).toEqual([]);
    expect((await mariadbEngineStore(db).channel(owner.channelId))!.sprites.some((s) => s.key === `prop:${id}`)).toBe(false);
    await web.store.props.restore(owner.channelId, id);
    expect((await mariadbEngineStore(db).channel(owner.channelId))!.sprites.some((s) => s.key === `prop:${id}`)).toBe(true);
  });
  test("the same file twice is told; a file that is nothing is refused as what it is not", async () => {
    await addProps(web, owner.channelId, await tile("#123"), "a.png");
    expect(await addProps(web, owner.channelId, await tile("#123"), "b.png")).toMatchObject({
      ok: true,
      value: [{ ok: false, words: "This file is there already, as a." }],
    });
    expect(await addProps(web, owner.channelId, Buffer.from("<html>"), "x.png")).toMatchObject({
      ok: false,
      refusal: { code: "picture/unknown-kind" },
    });
    expect(await reshapeProp(web, owner.channelId, "gone", {})).toMatchObject({ ok: false, refusal: { code: "prop/unknown" } });
  });
});

describe("stages", () => {
  const place = { x: 0.1, y: 0.2, width: 0.3, height: 0.4, hidden: false, locked: true, opacity: 0.5 };
  test("are arranged on air or as a draft; games of others never come onto them", async () => {
    const [overlay] = await web.store.overlays.overlays(owner.channelId);
    const game = (await createGame(web, owner, { kind: "boss-battle", name: "Spall" })) as { ok: true; value: { id: string } };
    const id = overlay?.id ?? "";
    const { layout, saveLayout, setUp } = web.store.overlays;
    const places = [
      { game: game.value.id, place },
      { game: "somebody-elses", place },
    ];
    expect(await saveLayout(owner.channelId, id, places, false)).toBe(true);
    const before = await layout(owner.channelId, id);
    expect([before?.draft?.length, before?.places.some((p) => p.game === game.value.id)]).toEqual([1, false]);
    await saveLayout(owner.channelId, id, places, true);
    expect(await layout(owner.channelId, id)).toMatchObject({ draft: null, places: [{ game: game.value.id, place }] });
    expect(await saveLayout(owner.channelId, "gone", [], true)).toBe(false);
    await setUp(owner.channelId, id, { shows: false, css: ".a{}", note: "n", atOnce: false });
    expect(await layout(owner.channelId, id)).toMatchObject({ shows: false, sounds: true, css: ".a{}", note: "n", atOnce: false });
    expect((await mariadbEngineStore(db).channel(owner.channelId))!.overlays.find((o) => o.id === id)).toMatchObject({
      shows: false,
      css: ".a{}",
    });
  });
});
