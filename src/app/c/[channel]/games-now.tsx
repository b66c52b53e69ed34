"use client";
import { type FormEvent, type ReactNode, useState } from "react";
import type { OwnInGame, ShopHead } from "../../../core/wire/to-viewer";
import { forViewersOf } from "../../../games/registry-viewers";
import { send, sendFilm } from "./send";

type Props = Readonly<{
  channel: string;
  games: ShopHead["games"];
  mine: readonly OwnInGame[];
  points: string;
  balance: number | null;
  nowMs: number;
  script: boolean;
  onSaid: (words: string, good: boolean) => void;
}>;

/** Games in which there is something to do just now, before all else; nothing where there is none. */
export function GamesNow({ games, mine, ...rest }: Props) {
  const now = games.filter(
    (g) => g.view !== null && forViewersOf(g.kind)?.open(g.view, mine.find((m) => m.id === g.id)?.mine ?? null) === true,
  );
  if (now.length === 0) return null;
  return (
    <section aria-labelledby="h-now">
      <h2 id="h-now">Now</h2>
      {now.map((g) => (
        <One key={g.id} game={g} mine={mine.find((m) => m.id === g.id)?.mine ?? null} {...rest} />
      ))}
    </section>
  );
}

function One({
  game,
  mine,
  channel,
  points,
  balance,
  nowMs,
  script,
  onSaid,
}: Omit<Props, "games" | "mine"> & Readonly<{ game: ShopHead["games"][number]; mine: OwnInGame["mine"] | null }>) {
  const [busy, setBusy] = useState(false);
  const { id, kind, view } = game;
  const submit = async (event: FormEvent<HTMLFormElement>): Promise<void> => {
    if (!script) return;
    event.preventDefault();
    if (busy) return onSaid("One moment: what you pressed before is still on its way.", false);
    const { film, ...given } = Object.fromEntries(new FormData(event.currentTarget));
    setBusy(true);
    if (film instanceof File && film.size > 0) {
      const source = await sendFilm(channel, film, onSaid);
      if (source === null) return setBusy(false);
      Object.assign(given, { source });
    }
    await send(channel, "act", `${id}.${String(given["do"])}`, given, onSaid);
    setBusy(false);
  };
  // Without script a second press on the same page is the same request; on the page that comes back it is another.
  const slot = nowMs.toString(36);
  const form = (what: string, children: ReactNode): ReactNode => (
    <form method="post" action={`/api/viewer/${channel}/act`} onSubmit={(e) => void submit(e)} className="act" aria-busy={busy}>
      <input type="hidden" name="id" value={`f-${slot}-${what}-${id}`.slice(0, 40)} />
      <input type="hidden" name="game" value={id} />
      <input type="hidden" name="do" value={what} />
      {children}
    </form>
  );
  const file = (label: string): ReactNode =>
    script && (
      <label className="wide">
        {label}
        <input type="file" name="film" accept=".webm,.mp4,.mov,.gif,video/*" />
      </label>
    );
  const Panel = forViewersOf(kind)?.Panel;
  if (Panel === undefined || view === null) return null;
  return <Panel view={view} mine={mine} points={points} balance={balance} nowMs={nowMs} form={form} file={file} />;
}
