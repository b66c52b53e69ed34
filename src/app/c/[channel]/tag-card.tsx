"use client";
import { type FormEvent, useState } from "react";
import type { Tag } from "../../../core/rewards/tags";
import { count } from "../../../core/words/sentence";

/** A price tag: what it is, what stands in the way, and its tear-off end with the price, which buys it. */
export function TagCard({
  tag,
  points,
  channel,
  known,
  nowMs,
  script,
  onBuy,
}: Readonly<{
  tag: Tag;
  points: string;
  channel: string;
  known: boolean;
  nowMs: number;
  script: boolean;
  onBuy: (tag: Tag, text: string, detail: string) => Promise<boolean>;
}>) {
  const [busy, setBusy] = useState(false);
  const [open, setOpen] = useState(false);
  const leftS = tag.freeAtMs > nowMs ? Math.ceil((tag.freeAtMs - nowMs) / 1000) : 0;
  // A wait that is over by this clock is over: the server is asked anyway.
  const waits = tag.code.endsWith("rest");
  const free = tag.code === "" || (waits && leftS === 0);
  const why = free ? "" : waits ? `${tag.code === "reward/own-rest" ? "yours again" : "for everyone again"} in ${wait(leftS)}` : tag.why;
  const asks = tag.text.how !== "none" || tag.detail !== "";
  const submit = async (event: FormEvent<HTMLFormElement>): Promise<void> => {
    if (!script) return;
    event.preventDefault();
    if (asks && !open) return setOpen(true);
    const form = new FormData(event.currentTarget);
    setBusy(true);
    if (await onBuy(tag, String(form.get("text") ?? ""), String(form.get("detail") ?? ""))) setOpen(false);
    setBusy(false);
  };
  const fields = !script || open;
  return (
    <li className={free ? "tag" : "tag waits"} data-tag={tag.id}>
      <form method="post" action={`/api/viewer/${channel}/buy`} onSubmit={(e) => void submit(e)}>
        <input type="hidden" name="id" value={`f-${nowMs.toString(36)}-${tag.id}`.slice(0, 40)} />
        <input type="hidden" name="reward" value={tag.id} />
        <input type="hidden" name="price" value={tag.price} />
        <div className="body">
          {tag.icon !== null && (
            <span
              className="icon"
              aria-hidden="true"
              style={{
                backgroundImage: `url(${tag.icon.url})`,
                backgroundSize: `${tag.icon.columns * 100}% ${tag.icon.rows * 100}%`,
              }}
            />
          )}
          <div className="what">
            <p className="name">{tag.name}</p>
            {tag.about !== "" && <p className="about">{tag.about}</p>}
            <p className="facts">
              {[
                ...(tag.words[0] === undefined ? [] : [tag.words[0]]),
                ...(tag.left === null ? [] : [tag.left === 0 ? "none left" : `${count(tag.left)} left`]),
                ...(tag.moving ? ["price moves"] : []),
                ...(tag.approval ? ["after a yes"] : []),
              ].join(" · ")}
            </p>
            {why !== "" && <p className="why">{capital(why)}</p>}
          </div>
        </div>
        <button
          type="submit"
          className="tear"
          disabled={busy || !known || !free}
          aria-label={`${tag.name}: get it for ${count(tag.price)} ${points}`}
        >
          <b>{count(tag.price)}</b>
          <span>{busy ? "…" : known ? "get it" : points}</span>
        </button>
        {asks && fields && known && (
          <div className="asks">
            {tag.text.how !== "none" && (
              <label>
                {tag.text.asks === "" ? "Your words" : tag.text.asks}
                <input name="text" maxLength={300} required={tag.text.how === "must"} autoFocus={script} autoComplete="off" />
              </label>
            )}
            {tag.detail !== "" && (
              <label>
                {tag.detail} <span className="soft">(only the channel’s owner can read it; it is deleted when done)</span>
                <textarea name="detail" rows={3} maxLength={600} required />
              </label>
            )}
            {script && (
              <div className="row">
                <button type="submit" className="main" disabled={busy}>
                  Get it for {count(tag.price)}
                </button>
                <button type="button" className="quiet" onClick={() => setOpen(false)}>
                  Not now
                </button>
              </div>
            )}
          </div>
        )}
      </form>
    </li>
  );
}

const wait = (s: number): string => (s < 90 ? `${s} s` : s < 5_400 ? `${Math.ceil(s / 60)} min` : `${Math.ceil(s / 3_600)} h`);
const capital = (words: string): string => `${words[0]?.toUpperCase() ?? ""}${words.slice(1)}`;
