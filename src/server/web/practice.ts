import { defaultDialect } from "../../core/chat/dialect";
import type { ChannelId } from "../../core/kernel/ids";
import { ok, refused, type Result } from "../../core/kernel/refusal";
import { type ChatSettings, chatSettingsSchema, type StudioConnection, studioOfRig, type WebServices } from "../composition/web";
import type { Env } from "../env";
import type { ChatStore } from "../ports/operator-store";
import { seal } from "../secrets";

/** Where the rig's chat is now: it chooses free ports at every start. */
const rigChat = (env: Env): Pick<ChatSettings, "host" | "port" | "tls" | "emotePictures" | "profiles" | "practice"> => ({
  host: "127.0.0.1",
  port: env.practiceIrcPort,
  tls: false,
  emotePictures: `${env.practiceUrl}/emotes/{id}`,
  profiles: new URL(env.practiceUrl).host,
  practice: true,
});

/** The rig's studio; where it is now, whoever connects reckons from the rig's own address. */
export const rigStudio = (env: Env): StudioConnection => ({ address: studioOfRig(env.practiceUrl), practice: true });

/** Connections that point at the rig follow its ports; any other stays as it is. Run at every start, before all else. */
export async function followPractice(chat: ChatStore, env: Env): Promise<void> {
  if (env.practiceUrl === "") return;
  for (const channel of await chat.practising()) {
    const kept = await chat.connection(channel);
    const before = chatSettingsSchema.safeParse(kept?.settings);
    if (!before.success) continue;
    const settings = { ...before.data, ...rigChat(env) };
    if (JSON.stringify(before.data) !== JSON.stringify(settings))
      await chat.saveConnection(channel, { enabled: kept?.enabled ?? true, settings });
  }
}
const tries = 10;
/** A rig that was started anew is told again where its events go; it may come up after us. */
export async function pointPractice(web: WebServices): Promise<void> {
  const { env, store } = web;
  if (env.practiceUrl === "") return;
  const [channel] = await store.chat.practising().catch(() => []);
  for (let i = 0; i < tries && channel !== undefined && !(await pointRig(env, channel)); i += 1)
    await new Promise((resolve) => setTimeout(resolve, 1_000).unref());
}

/** The room of the rig’s chat in which a channel’s viewers write. */
const roomOf = (channel: ChannelId): string =>
  `#${
    channel
      .toLowerCase()
      .replace(/[^a-z0-9-]/g, "")
      .slice(0, 30) || "practice"
  }`;

/** The rig sends its events to this channel from now on, and its viewers write in this channel’s room. */
async function pointRig(env: Env, channel: ChannelId): Promise<boolean> {
  const answer = await fetch(`${env.practiceUrl}/channel`, {
    method: "POST",
    body: JSON.stringify({ channel, room: roomOf(channel) }),
    signal: AbortSignal.timeout(3_000),
  }).catch(() => null);
  return answer?.ok === true;
}

/** Chat and platform events from the practice rig, with nothing to fill in. What was connected before is replaced. */
export async function usePractice(web: WebServices, channel: ChannelId): Promise<Result<null>> {
  const { env, store, clock, engine } = web;
  if (env.practiceUrl === "") return refused("practice/none");
  await store.chat.saveConnection(channel, {
    enabled: true,
    settings: {
      nick: "izzam",
      login: "none",
      channel: roomOf(channel),
      tlsUnverified: false,
      mostPer30s: 20,
      dialect: defaultDialect,
      ...rigChat(env),
    } satisfies ChatSettings,
    secret: null,
  });
  await store.studio.saveConnection(channel, { enabled: true, settings: rigStudio(env), secret: null });
  await store.events.setSecret(channel, {
    sealed: seal(env.appKey, "event-secret", env.practiceSecret),
    oldUntilMs: 0,
    nowMs: clock.now(),
  });
  await engine.reload(channel);
  return (await pointRig(env, channel)) ? ok(null) : refused("practice/away");
}
