import { afterAll, beforeAll, describe, expect, test } from "@jest/globals";
import { wheelSettingsSchema } from "../../core/games/wheel/settings";
import { ruleEffectSchema } from "../../core/rules/effect";
import { newRule, type Rulebook, rulebookSchema } from "../../core/rules/settings";
import type { WebServices } from "../composition/web";
import type { Session } from "../ports/operator-store";
import { hashToken } from "../secrets";
import { nowMs, setupCode, testWeb } from "../testing/web";
import { setUp } from "./accounts";
import { bookOf, draftOf } from "./books";
import { createGame, publish, removeGame, saveDraft } from "./games";
import { replaceGame } from "./replace-game";
import { usesOfGame } from "./uses";

let web: WebServices;
let session: Session;
let end: () => Promise<void>;
const game = async (kind: string, name: string): Promise<string> => {
  const made = await createGame(web, session, { kind, name });
  if (!made.ok) throw new Error(made.refusal.code);
  expect(await publish(web, session, made.value.id, 1)).toMatchObject({ ok: true });
  return made.value.id;
};
const rulesNow = async (): Promise<Readonly<{ draft: Rulebook; published: Rulebook; id: string; revision: number }>> => {
  const draft = await bookOf(web.store, session.channelId, "rules", "Weaver", nowMs);
  return {
    draft: rulebookSchema.parse(draft.settings),
    published: rulebookSchema.parse(draft.published),
    id: draft.id,
    revision: draft.revision,
  };
};
const named = (book: Rulebook): readonly string[] =>
  book.rules.flatMap((r) => r.tiers.flatMap((t) => t.effects.flatMap((e) => ("game" in e ? [e.game] : []))));
const hits = (id: string, target: string) => ({
  ...newRule(id, "tip"),
  tiers: [{ at: "least" as const, amount: 0, effects: [ruleEffectSchema.parse({ do: "switch", game: target, on: true })] }],
});

beforeAll(async () => {
  ({ web, end } = await testWeb("replace_game"));
  const opened = await setUp(web, { code: setupCode, login: "Weaver", password: "a long password", channel: "Loom" }, "1.1.1.1");
  if (!opened.ok) throw new Error(opened.refusal.code);
  session = (await web.store.accounts.session(hashToken(opened.value.token), nowMs))!;
});
afterAll(() => end());

describe("a game that goes, and another in its place", () => {
  test("rules do with the other what they did with it, on air at once; it stands where the first stood", async () => {
    const [old, next] = [await game("boss-battle", "Old"), await game("boss-battle", "Next")];
    const before = await rulesNow();
    const saved = await saveDraft(web, session, before.id, before.revision, { ...before.draft, rules: [hits("r", old)] });
    if (!saved.ok) throw new Error(saved.refusal.code);
    await publish(web, session, before.id, saved.value.revision);
    const [overlay] = await web.store.overlays.overlays(session.channelId);
    const stood = (await web.store.overlays.layout(session.channelId, overlay!.id))!.places.find((p) => p.game === old)!.place;
    await web.store.overlays.place(session.channelId, overlay!.id, next, null);

    expect(await replaceGame(web, session, old, next)).toEqual({ ok: true, value: { left: [] } });
    const after = await rulesNow();
    expect([named(after.draft), named(after.published)]).toEqual([[next], [next]]);
    const places = (await web.store.overlays.layout(session.channelId, overlay!.id))!.places;
    expect(places.find((p) => p.game === next)?.place).toEqual(stood);
    // Once more changes nothing, and what nothing names any more goes without a word.
    expect(await replaceGame(web, session, old, next)).toEqual({ ok: true, value: { left: [] } });
    expect((await rulesNow()).revision).toBe(after.revision);
    expect((await usesOfGame(web.store, session.channelId, old)).map((u) => u.path.split("?")[0])).not.toContain("/prepare/rules");
    expect(await removeGame(web, session, old, true)).toMatchObject({ ok: true });
  });
  test("changes of somebody that wait go on waiting, with it in them", async () => {
    const [old, next] = [await game("boss-battle", "Third"), await game("boss-battle", "Fourth")];
    const at = await rulesNow();
    const saved = await saveDraft(web, session, at.id, at.revision, { ...at.draft, rules: [hits("w", old)] });
    expect(saved.ok).toBe(true);
    expect(await replaceGame(web, session, old, next)).toEqual({ ok: true, value: { left: ["rules"] } });
    const after = await rulesNow();
    expect([named(after.draft), named(after.published)]).toEqual([[next], named(at.published)]);
  });
  test("a game whose own settings do something with it is a place where it is used, and does it with the other then", async () => {
    const [old, next] = [await game("boss-battle", "Seventh"), await game("boss-battle", "Eighth")];
    const plate = await game("wheel", "The plate");
    const draft = (await web.store.games.draft(session.channelId, plate))!;
    const strikes = ruleEffectSchema.parse({ do: "act", game: old, act: "damage", input: { amount: 5 }, per: 1 });
    const settings = wheelSettingsSchema.parse(draft.settings);
    const changed = { ...settings, segments: settings.segments.map((s, i) => (i === 0 ? { ...s, effects: [strikes] } : s)) };
    expect(await saveDraft(web, session, plate, draft.revision, changed)).toMatchObject({ ok: true });
    expect((await usesOfGame(web.store, session.channelId, old)).map((u) => u.words)).toContain("the game “The plate”");
    expect(await replaceGame(web, session, old, next)).toMatchObject({ ok: true, value: { left: ["The plate"] } });
    const after = wheelSettingsSchema.parse((await web.store.games.draft(session.channelId, plate))!.settings);
    expect(after.segments[0]?.effects).toMatchObject([{ game: next }]);
  });
  test("not by another kind, by itself, by what is gone, or by what never was", async () => {
    const [boss, wall, gone] = [await game("boss-battle", "Fifth"), await game("emote-wall", "Wall"), await game("boss-battle", "Sixth")];
    await removeGame(web, session, gone, true);
    expect(await replaceGame(web, session, boss, wall)).toMatchObject({ ok: false, refusal: { code: "game/other-kind" } });
    for (const other of [boss, gone, "nothing", "__proto__"])
      expect(await replaceGame(web, session, boss, other)).toMatchObject({ ok: false, refusal: { code: "game/unknown" } });
    const rules = (await draftOf(web.store, session.channelId, "rules"))!.id;
    expect(await replaceGame(web, session, rules, boss)).toMatchObject({ ok: false });
  });
});
