"use client";
import { useCallback, useEffect, useMemo, useRef, useState } from "react";
import type { Tag } from "../../../core/rewards/tags";
import { count, counted } from "../../../core/words/sentence";
import { clockOf } from "../../../core/words/clock";
import type { ShopView } from "../../../server/ports/engine-link";
import type { Mine } from "../../../server/web/viewers";
import { FaceSwitch } from "./face-switch";
import { OwnFace } from "./own-face";
import { Fairness } from "./fairness";
import { GamesNow } from "./games-now";
import { History } from "./history";
import { TagCard } from "./tag-card";
import { useShop } from "./use-shop";
import { Prove } from "./prove";
import { send } from "./send";

const sections = ["Rewards", "Games", "History", "Top list", "Commands"] as const;
type Said = Readonly<{ words: string; good: boolean; n: number }>;

/** The viewer page: whole as it comes from the server, and live from then on. */
export function ViewerPage({
  channel,
  shop,
  mine: firstMine,
  code: firstCode,
  said: firstSaid,
}: Readonly<{ channel: string; shop: ShopView; mine: Mine | null; code: string; said: string }>) {
  const [mine, setMine] = useState(firstMine);
  const [code, setCode] = useState(firstCode);
  const [said, setSaid] = useState<Said | null>(firstSaid === "" ? null : { words: firstSaid, good: true, n: 0 });
  const [only, setOnly] = useState(false);
  const [script, setScript] = useState(false);
  const learn = useCallback(() => {
    fetch(`/api/viewer/${channel}/mine`)
      .then((r) => r.json())
      .then((answer: { ok: boolean; value?: Mine }) => answer.ok && answer.value !== undefined && setMine(answer.value))
      // The old history stays; the next change asks again.
      .catch(() => undefined);
  }, [channel]);
  const live = useShop(channel, shop, learn);
  const [nowMs, setNow] = useState(shop.nowMs);
  useEffect(() => {
    setScript(true);
    const timer = setInterval(() => setNow(Date.now() + live.aheadMs), 500);
    return () => clearInterval(timer);
  }, [live.aheadMs]);
  const { head, viewer } = live;
  const say = (words: string, good: boolean): void => setSaid((was) => ({ words, good, n: (was?.n ?? 0) + 1 }));

  const tags = useMemo(() => {
    const kept = live.own.flatMap((o) => (o.tag === null ? [] : [o.tag]));
    const all = [...kept, ...head.order.flatMap((id) => live.tags.get(id) ?? [])].filter(
      (t, i, list) => list.findIndex((x) => x.id === t.id) === i,
    );
    return all.map((t): Tag => {
      const own = live.own.find((o) => o.id === t.id);
      // One's own wait, where that is longer than everybody's.
      if (own !== undefined && own.code === "reward/own-rest" && own.freeAtMs > t.freeAtMs)
        return { ...t, why: own.why, code: own.code, freeAtMs: own.freeAtMs };
      if (t.why !== "" && t.code !== "reward/too-poor") return t;
      if (own !== undefined && own.why !== "") return { ...t, why: own.why, code: own.code, freeAtMs: own.freeAtMs };
      if (viewer !== null && viewer.balance < t.price)
        return { ...t, why: `${count(t.price - viewer.balance)} ${head.points} to go`, code: "reward/too-poor" };
      return { ...t, why: "", code: "" };
    });
  }, [live, head, viewer]);
  const shown = only ? tags.filter((t) => t.code === "") : tags;
  const categories = [...new Set(shown.map((t) => t.category))];

  const askCode = async (): Promise<void> => {
    try {
      const response = await fetch(`/api/viewer/${channel}/code`, {
        method: "POST",
        headers: { "content-type": "application/json" },
        body: "{}",
      });
      const answer = (await response.json()) as { ok: boolean; value?: { code: string }; words?: string };
      // The page's socket must carry its new cookie: it opens again with it.
      if (answer.ok) location.reload();
      else say(answer.words ?? "That did not work. Try again in a moment.", false);
    } catch {
      say("Not reachable at the moment. Try again.", false);
    }
  };
  const buy = (tag: Tag, text: string, detail: string): Promise<boolean> =>
    send(channel, "buy", tag.id, { reward: tag.id, text, detail, price: tag.price }, say);
  const proven = viewer !== null;
  const wasProven = useRef(proven);
  useEffect(() => {
    if (!proven) return;
    setCode("");
    if (wasProven.current) return;
    wasProven.current = true;
    // The token with which it asked for its code was there before its name was: another one takes its place.
    void fetch(`/api/viewer/${channel}/renew`, { method: "POST" }).catch(() => undefined);
  }, [proven, channel]);

  return (
    <>
      <header className="shop-head">
        <div className="shop-title">
          <h1>{head.channel}</h1>
          <p className={head.onAir ? "onair" : "offair"}>
            {head.onAir ? `On air${head.sinceMs === null ? "" : ` for ${clockOf(nowMs - head.sinceMs)}`}` : "Off air"}
            {live.state === "away" && <span className="away"> · reconnecting</span>}
          </p>
        </div>
        {viewer === null ? (
          <Prove channel={channel} code={code} points={head.points} onAsk={script ? () => void askCode() : null} />
        ) : (
          <div className="you">
            <p>
              <b className="sum">{count(viewer.balance)}</b> <span>{head.points}</span>
            </p>
            <FaceSwitch channel={channel} mine={live.games} script={script} nowMs={nowMs} onSaid={say} />
            <form method="post" action={`/api/viewer/${channel}/leave`}>
              <OwnFace name={viewer.name} url={live.face} games={live.games} /> <span>{viewer.name}</span>{" "}
              <button type="submit" className="quiet">
                Not you?
              </button>
            </form>
          </div>
        )}
        <nav aria-label="On this page">
          {sections.map((s) => (
            <a key={s} href={`#${anchor(s)}`}>
              {s}
            </a>
          ))}
        </nav>
      </header>
      <main>
        <div role="status" aria-live="polite" className={said === null ? "said none" : said.good ? "said good" : "said no"}>
          {said?.words}
        </div>
        {head.hushed && <p className="note">Buying pauses at the moment. Nothing you do here costs anything until it goes on.</p>}

        <GamesNow
          channel={channel}
          games={head.games}
          mine={live.games}
          points={head.points}
          balance={viewer?.balance ?? null}
          nowMs={nowMs}
          script={script}
          onSaid={say}
        />
        <section id={anchor("Rewards")} aria-labelledby="h-rewards">
          <div className="row">
            <h2 id="h-rewards">Rewards</h2>
            {script && viewer !== null && (
              <label className="only">
                <input type="checkbox" checked={only} onChange={(e) => setOnly(e.currentTarget.checked)} /> what I can have now
              </label>
            )}
          </div>
          {tags.length === 0 && <p className="soft">There is nothing to buy yet. It appears here by itself.</p>}
          {tags.length > 0 && shown.length === 0 && (
            <p className="soft">Nothing at the moment. Points come by being there; waits end by themselves.</p>
          )}
          {categories.map((category) => (
            <div key={category}>
              {category !== "" && <h3>{category}</h3>}
              <ul className="tags">
                {shown
                  .filter((t) => t.category === category)
                  .map((t) => (
                    <TagCard
                      key={t.id}
                      tag={t}
                      points={head.points}
                      channel={channel}
                      known={viewer !== null}
                      nowMs={nowMs}
                      script={script}
                      onBuy={buy}
                    />
                  ))}
              </ul>
            </div>
          ))}
        </section>

        <section id={anchor("Games")} aria-labelledby="h-games">
          <h2 id="h-games">Games</h2>
          {head.games.length === 0 && <p className="soft">No game is set up.</p>}
          {head.games.map((g) => (
            <details key={g.id} className="game">
              <summary>
                <b>{g.name}</b> <span className="soft">{g.stands}</span>
              </summary>
              {shop.games
                .find((x) => x.id === g.id)
                ?.lines.map((line) => (
                  <p key={line}>{line}</p>
                ))}
              {g.fair !== null && <Fairness fair={g.fair} />}
            </details>
          ))}
          {mine !== null && (
            <p>
              You struck {counted(mine.games.hits, "time")} so far, {count(mine.games.damage)} damage in all
              {mine.games.reigns > 0 ? `, and stood on top ${mine.games.reigns === 1 ? "once" : `${count(mine.games.reigns)} times`}` : ""}.
            </p>
          )}
        </section>

        <section id={anchor("History")} aria-labelledby="h-history">
          <h2 id="h-history">History</h2>
          {viewer === null ? (
            <p className="soft">How your {head.points} came and went stands here, once this page knows your chat name.</p>
          ) : (
            <>
              {(mine?.codes ?? []).map((c) => (
                <p key={c.code} className="given">
                  {c.reward}: <b>{c.code}</b>
                </p>
              ))}
              <History lines={mine?.history ?? []} points={head.points} nowMs={nowMs} />
            </>
          )}
        </section>

        <section id={anchor("Top list")} aria-labelledby="h-top">
          <h2 id="h-top">Top list</h2>
          {head.top.length === 0 ? (
            <p className="soft">Nobody has {head.points} yet.</p>
          ) : (
            <ol className="top">
              {head.top.map((t) => (
                <li key={t.name} className={t.name === viewer?.name ? "me" : undefined}>
                  <span>{t.name}</span> <b>{count(t.balance)}</b>
                </li>
              ))}
            </ol>
          )}
        </section>

        <section id={anchor("Commands")} aria-labelledby="h-commands">
          <h2 id="h-commands">Commands in chat</h2>
          {shop.commands.length === 0 && tags.every((t) => t.words.length === 0) && <p className="soft">None is set up.</p>}
          <dl>
            {shop.commands.map((c) => (
              <div key={c.word}>
                <dt>{c.word}</dt>
                <dd>{c.what}</dd>
              </div>
            ))}
            {tags
              .filter((t) => t.words.length > 0)
              .map((t) => (
                <div key={t.id}>
                  <dt>{t.words.join(" ")}</dt>
                  <dd>
                    buys {t.name} for {count(t.price)}
                  </dd>
                </div>
              ))}
          </dl>
        </section>
      </main>
      <footer>
        <a href="#top">Up</a>
        {script && (
          <button
            type="button"
            className="quiet"
            onClick={() => {
              const night = document.documentElement.classList.toggle("dark");
              document.cookie = `izzam_surface=${night ? "night" : "paper"}; path=/; max-age=31536000; samesite=lax`;
            }}
          >
            Light or dark
          </button>
        )}
      </footer>
    </>
  );
}

const anchor = (name: string): string => name.toLowerCase().replace(/\W+/g, "-");
