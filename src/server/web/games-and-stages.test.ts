import { afterAll, beforeAll, describe, expect, test } from "@jest/globals";
import { wholePlace } from "../../core/wire/messages";
import { emoteWall } from "../../core/games/emote-wall/definition";
import { eveningOf } from "../../core/games/evening";
import { ok } from "../../core/kernel/refusal";
import { mariadbEngineStore } from "../adapters/mariadb/engine-store";
import type { WebServices } from "../composition/web";
import type { Session } from "../ports/operator-store";
import { hashToken } from "../secrets";
import type { testDatabase } from "../testing/database";
import { channelId } from "../../core/kernel/ids";
import { newToken } from "../secrets";
import { bringBack, createGame, placeOf, publish, removeGame, saveDraft } from "./games";
import { bookOf, homeCurrency } from "./books";
import { linkToken, replaceLink, revokeLink } from "./overlays";
import { refusalInWords } from "./words";
import { nowMs, openedWeb } from "../testing/web";

let web: WebServices;
let owner: Session;
let db: Awaited<ReturnType<typeof testDatabase>>["db"];
let end: () => Promise<void>;

beforeAll(async () => {
  ({ web, db, end, owner } = await openedWeb("games_and_stages"));
});
afterAll(() => end());

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

describe("what is removed", () => {
  test("never takes viewers’ points with it: what runs in it is ended or cancelled first", async () => {
    const made = await createGame(web, owner, { kind: "prediction", name: "Questions" });
    const id = made.ok ? made.value.id : "";
    const { prediction } = await import("../../core/games/prediction/definition");
    const asked = eveningOf(prediction, prediction.defaults);
    asked.command({ do: "open", template: "" });
    const put = async (): Promise<void> => {
      await db("game_states").where({ game_id: id }).delete();
      await db("game_states").insert({ game_id: id, seq: 1, durable: JSON.stringify(prediction.rows!.stored(asked.at())), version: 1 });
    };
    await put();
    expect(await web.store.games.pool(owner.channelId, id)).toBe(0);
    asked.say("ada", "!back A 40");
    await put();
    const refused = await removeGame(web, owner, id, true);
    expect(refused).toMatchObject({ refusal: { code: "game/points-in-it" } });
    expect(refused.ok ? "" : refusalInWords(refused.refusal)).toContain("Points of viewers lie in it.");
    asked.command({ do: "cancel" });
    asked.timer(2_000);
    await put();
    expect(await removeGame(web, owner, id, true)).toEqual({ ok: true, value: null });
  });
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
