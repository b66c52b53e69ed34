import { afterAll, beforeAll, describe, expect, test } from "@jest/globals";
import sharp from "sharp";
import { mariadbEngineStore } from "../adapters/mariadb/engine-store";
import type { WebServices } from "../composition/web";
import type { Session } from "../ports/operator-store";
import { hashToken } from "../secrets";
import type { testDatabase } from "../testing/database";
import { saveChat } from "./chat";
import { addEmote, emoteWordSchema, removeEmote, renameEmote, restoreEmote } from "./emotes";
import { saveDraft } from "./games";
import { bookOf } from "./books";
import { endOldSecret, eventSecret, replaceTrigger, revokeTrigger, rotateEventSecret, triggerToken } from "./events";
import { inMemory } from "./brought";
import { addProps, propsWithUses, replaceProp, reshapeProp } from "./props";
import { nowMs, openedWeb } from "../testing/web";

let web: WebServices;
let owner: Session;
let db: Awaited<ReturnType<typeof testDatabase>>["db"];
let end: () => Promise<void>;

beforeAll(async () => {
  ({ web, db, end, owner } = await openedWeb("library_and_connections"));
});
afterAll(() => end());

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

describe("props", () => {
  const tile = (colour: string): Promise<Buffer> =>
    sharp({ create: { width: 30, height: 20, channels: 4, background: colour } })
      .png()
      .toBuffer();
  test("are added, found as used, cut from the untouched source, replaced, removed and restored", async () => {
    const added = await addProps(web, owner.channelId, inMemory(await tile("#a10"), "red_tile.png"));
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
    expect((await replaceProp(web, owner.channelId, id, inMemory(await tile("#0a1")))).ok).toBe(true);
    expect(await replaceProp(web, owner.channelId, id, inMemory(Buffer.from("nothing")))).toMatchObject({ ok: false });
    await web.store.props.remove(owner.channelId, id, nowMs);
    expect(await propsWithUses(web, owner.channelId)).toEqual([]);
    expect((await mariadbEngineStore(db).channel(owner.channelId))!.sprites.some((s) => s.key === `prop:${id}`)).toBe(false);
    await web.store.props.restore(owner.channelId, id);
    expect((await mariadbEngineStore(db).channel(owner.channelId))!.sprites.some((s) => s.key === `prop:${id}`)).toBe(true);
  });
  test("the same file twice is told; a file that is nothing is refused as what it is not", async () => {
    await addProps(web, owner.channelId, inMemory(await tile("#123"), "a.png"));
    expect(await addProps(web, owner.channelId, inMemory(await tile("#123"), "b.png"))).toMatchObject({
      ok: true,
      value: [{ ok: false, words: "This file is there already, as a." }],
    });
    expect(await addProps(web, owner.channelId, inMemory(Buffer.from("<html>"), "x.png"))).toMatchObject({
      ok: false,
      refusal: { code: "picture/unknown-kind" },
    });
    expect(await reshapeProp(web, owner.channelId, "gone", {})).toMatchObject({ ok: false, refusal: { code: "prop/unknown" } });
  });
});
