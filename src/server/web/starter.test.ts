import { afterAll, beforeAll, describe, expect, test } from "@jest/globals";
import type { ChannelId } from "../../core/kernel/ids";
import { refused } from "../../core/kernel/refusal";
import type { WebServices } from "../composition/web";
import { hashToken } from "../secrets";
import { nowMs, setupCode, testWeb } from "../testing/web";
import { setUp } from "./accounts";
import { addEmote, removeEmote } from "./emotes";
import { addStarter } from "./starter";

let web: WebServices;
let channel: ChannelId;
let end: () => Promise<void>;
beforeAll(async () => {
  ({ web, end } = await testWeb("starter"));
  const opened = await setUp(web, { code: setupCode, login: "Weaver", password: "a long password", channel: "Loom" }, "1.1.1.1");
  if (!opened.ok) throw new Error(opened.refusal.code);
  channel = (await web.store.accounts.session(hashToken(opened.value.token), nowMs))!.channelId;
});
afterAll(() => end());
const words = async (): Promise<string[]> => (await web.store.emotes.emotes(channel)).map((e) => e.word).sort();

describe("what a channel that has nothing begins with", () => {
  test("a decoder that opens nothing is the answer, and nothing is added", async () => {
    const none = async () => refused("picture/broken");
    const deaf: WebServices = { ...web, decoder: { ...web.decoder, picture: none } };
    expect(await addStarter(deaf, channel, "emotes")).toMatchObject({ ok: false, refusal: { code: "picture/broken" } });
    expect(await words()).toEqual([]);
  });

  test("three who ask at once get twelve emotes between them, each once", async () => {
    const done = await Promise.all([1, 2, 3].map(() => addStarter(web, channel, "emotes")));
    expect(done.reduce((sum, d) => sum + (d.ok ? d.value.added : NaN), 0)).toBe(12);
    const have = await words();
    expect(have).toHaveLength(12);
    expect(new Set(have.map((w) => w.toLowerCase())).size).toBe(12);
  });

  test("asked again, nothing; what was taken out comes back; a word of one's own keeps its own picture", async () => {
    expect(await addStarter(web, channel, "emotes")).toEqual({ ok: true, value: { added: 0 } });
    const [first, second] = await web.store.emotes.emotes(channel);
    await removeEmote(web, channel, first!.id);
    await removeEmote(web, channel, second!.id);
    const own = Buffer.from('<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 9 9"><rect width="9" height="9" fill="#123456"/></svg>');
    const mine = await addEmote(web, channel, own, first!.word.toUpperCase());
    if (!mine.ok) throw new Error(mine.refusal.code);
    expect(await addStarter(web, channel, "emotes")).toEqual({ ok: true, value: { added: 1 } });
    const now = await web.store.emotes.emotes(channel);
    expect(now.find((e) => e.word === first!.word.toUpperCase())?.id).toBe(mine.value.id);
    expect(now).toHaveLength(12);
  });

  test("pictures and sounds too, each once", async () => {
    const first = await addStarter(web, channel, "props");
    expect(first.ok && first.value.added).toBeGreaterThan(10);
    expect(await addStarter(web, channel, "props")).toEqual({ ok: true, value: { added: 0 } });
  });
});
