import { fileTypeFromBuffer } from "file-type";
import { RateLimiterMemory } from "rate-limiter-flexible";
import { z } from "zod";
import { noteInWords } from "../../core/notes";
import { channelId, type ChannelId } from "../../core/kernel/ids";
import { ok, refused, type Result } from "../../core/kernel/refusal";
import type { HistoryLine } from "../ports/points-store";
import { hashToken, newToken, seal } from "../secrets";
import { allowed } from "./accounts";
import { keepCookie } from "./cookie";
import { cookie } from "./asked";
import { type Brought, headOf, shaOf } from "./brought";
import { services } from "./services";

export const viewerCookie = "izzam_viewer";
const viewerDays = 90;
const perPage = new RateLimiterMemory({ points: 12, duration: 10 });
const perAddress = new RateLimiterMemory({ points: 30, duration: 60 });

export const channelOf = (text: string | undefined): ChannelId | null =>
  text !== undefined && /^[A-Za-z0-9_-]{1,26}$/.test(text) ? channelId(text) : null;

/** The hash of this page's token; empty for a page that has none yet. */
export async function pageToken(): Promise<string> {
  const token = await cookie(viewerCookie);
  return token !== undefined && /^[A-Za-z0-9_-]{20,64}$/.test(token) ? hashToken(token) : "";
}

/** A token that nobody knew before; kept as the page's own once `take` has taken its hash. */
async function freshToken<T>(take: (hash: string) => Promise<Result<T>>): Promise<Result<T>> {
  const token = newToken() + newToken();
  const taken = await take(hashToken(token));
  if (taken.ok) await keepCookie(viewerCookie, ok({ token, expiresMs: services().clock.now() + viewerDays * 86_400_000 }));
  return taken;
}

/**
 * Gives the page a token of its own and the code that ties it to a chat name. It is a new token each time: with one that
 * somebody else had put there, they would be whoever types the code.
 */
export async function askCode(channel: ChannelId, address: string): Promise<Result<Readonly<{ code: string; untilMs: number }>>> {
  const may = await allowed(perAddress, address);
  return may.ok ? freshToken((hash) => services().engine.code(channel, hash)) : may;
}

/** The page that was just proven goes on under another token. */
export async function renew(channel: ChannelId, address: string): Promise<Result<null>> {
  const may = await allowed(perAddress, address);
  if (!may.ok) return may;
  const before = await pageToken();
  return before === "" ? refused("viewer/not-proven") : freshToken((hash) => services().engine.renew(channel, before, hash));
}

export const buySchema = z.object({
  id: z.string().min(8).max(40),
  reward: z.string().min(1).max(26),
  text: z.string().max(300, "At most 300 characters.").default(""),
  price: z.coerce.number().int().min(0),
  detail: z.string().trim().max(600, "At most 600 characters.").default(""),
});
export type Buy = z.infer<typeof buySchema>;

/** Buys for who this page is tied to; what is private is sealed before it is kept. Answers in words. */
export async function buy(channel: ChannelId, given: Buy): Promise<Result<Readonly<{ words: string }>>> {
  const token = await pageToken();
  if (token === "") return refused("viewer/not-proven");
  const may = await allowed(perPage, token);
  if (!may.ok) return may;
  const web = services();
  const shop = await web.engine.shop(channel, token);
  if (!shop.ok) return shop;
  const tag = shop.value.tags.find((t) => t.id === given.reward);
  if (tag !== undefined && tag.detail !== "" && given.detail === "")
    return refused("reward/detail", { reward: tag.name, asks: tag.detail });
  const { detail, ...request } = given;
  const done = await web.engine.purchase(channel, token, request);
  if (!done.ok) return done;
  const sale = done.value.facts?.["sale"];
  if (tag !== undefined && tag.detail !== "" && typeof sale === "string")
    await web.store.points.keepDetail(channel, sale, seal(web.env.appKey, "sale-detail", detail));
  const words = noteInWords("rewards", done.value);
  return ok({ words: `${words[0]?.toUpperCase() ?? ""}${words.slice(1)}.` });
}

export const actSchema = z
  .looseObject({ id: z.string().min(8).max(40), game: z.string().min(1).max(26), do: z.string().min(1).max(40) })
  .refine((given) => JSON.stringify(given).length <= 2_000, "That is too much at once.");

/** Does something in a game for who this page is tied to: what it may be, the game’s own schema says. Answers in words. */
export async function act(channel: ChannelId, given: z.infer<typeof actSchema>): Promise<Result<Readonly<{ words: string }>>> {
  const token = await pageToken();
  if (token === "") return refused("viewer/not-proven");
  const may = await allowed(perPage, token);
  if (!may.ok) return may;
  const { engine } = services();
  const { id, game, ...command } = given;
  const done = await engine.act(channel, token, { id, game, command });
  const shop = await engine.shop(channel, "");
  const kind = shop.ok ? (shop.value.head.games.find((g) => g.id === game)?.kind ?? "") : "";
  if (done.ok) return ok({ words: sentence(noteInWords(kind, done.value)) });
  // What the game itself refuses, it has the words for.
  return done.refusal.code.startsWith(`${kind}/`)
    ? refused("game/said", { words: sentence(noteInWords(kind, { refusal: done.refusal, count: 1 })) })
    : done;
}
/** A film from a phone: large enough for a minute of it. */
const perFilms = new RateLimiterMemory({ points: 12, duration: 3_600 });
const perChannelFilms = new RateLimiterMemory({ points: 300, duration: 3_600 });
/** Keeps a film that somebody wants to show, and gives back by what it is asked for. Read only once it is clear that they may. */
export async function keepFilm(
  channel: ChannelId,
  take: (keep: (film: Brought) => Promise<Result<Readonly<{ source: string }>>>) => Promise<Result<Readonly<{ source: string }>>>,
): Promise<Result<Readonly<{ source: string }>>> {
  const token = await pageToken();
  if (token === "") return refused("viewer/not-proven");
  const { engine, store, clock } = services();
  const shop = await engine.shop(channel, token);
  if (!shop.ok) return shop;
  if (shop.value.viewer === null) return refused("viewer/not-proven");
  // By person, not by page: who has ten pages open is one.
  for (const [limit, key] of [
    [perFilms, `${channel} ${shop.value.viewer.id}`],
    [perChannelFilms, channel],
  ] as const) {
    const may = await allowed(limit, key);
    if (!may.ok) return may;
  }
  return take(async (film) => {
    if (film.size === 0) return refused("picture/empty");
    const mime = (await fileTypeFromBuffer(await headOf(film)))?.mime ?? "";
    if (!mime.startsWith("video/") && mime !== "image/gif") return refused("video/no-video");
    const source = await shaOf(film);
    await store.media.putFile({ ...film, sha: source, mime: "application/octet-stream" }, clock.now());
    return ok({ source });
  });
}
const sentence = (words: string): string => (words === "" ? "" : `${words[0]?.toUpperCase() ?? ""}${words.slice(1)}.`);

export type Mine = Readonly<{
  codes: readonly Readonly<{ reward: string; code: string }>[];
  history: readonly HistoryLine[];
  games: Readonly<{ hits: number; damage: number; reigns: number }>;
}>;
/** What only the viewer of this page may see: how their points came and went, and what they did in games. */
export async function mineOf(channel: ChannelId, viewer: string): Promise<Mine> {
  const { points, shows } = services().store;
  const [person, card] = await Promise.all([points.person(channel, viewer), shows.viewer(channel, viewer)]);
  return {
    codes: (person?.sales ?? []).filter((s) => s.code !== "").map((s) => ({ reward: s.rewardName, code: s.code })),
    // Who adjusted it stays with the operators.
    history: (person?.history ?? []).slice(0, 30).map((h) => ({ ...h, by: "" })),
    games: { hits: card?.hits.count ?? 0, damage: card?.hits.damage ?? 0, reigns: card?.reigns ?? 0 },
  };
}
