"use client";
import { useCallback, useRef, useState } from "react";
import type { EmoteRow } from "../../../../server/ports/operator-store";
import { tell, tellTrouble } from "../../../../ui/toaster";
import { call } from "../../../_frame/call";

export type Upload = Readonly<{
  n: number;
  name: string;
  state: "waiting" | "sending" | "done" | "refused";
  words: string;
  file: File;
  word: string;
}>;

/** A word from a file's name: what a chatter could type. */
export function wordFrom(fileName: string, taken: ReadonlySet<string>): string {
  const base = fileName
    .replace(/\.[^.]*$/, "")
    .normalize("NFC")
    .split(/[^\p{L}\p{N}]+/u)
    .filter(Boolean)
    .map((part, i) => (i === 0 ? part : part.charAt(0).toUpperCase() + part.slice(1)))
    .join("")
    .slice(0, 36);
  const start = base.length >= 2 ? base : `emote${base}`;
  let word = start;
  for (let n = 2; taken.has(word.toLowerCase()); n += 1) word = `${start}${n}`;
  return word;
}

/** The list, and everything one does to it. Files go up one after another, each with its own answer. */
export function useEmotes(first: readonly EmoteRow[]) {
  const [emotes, setEmotes] = useState(first);
  const [uploads, setUploads] = useState<readonly Upload[]>([]);
  const counter = useRef(0);
  const queue = useRef<Promise<void>>(Promise.resolve());
  const taken = useRef(new Set(first.map((e) => e.word.toLowerCase())));

  const load = useCallback(async () => {
    try {
      const said = (await (await fetch("/api/emotes")).json()) as { ok: boolean; value: { emotes: EmoteRow[] } };
      if (!said.ok) return;
      setEmotes(said.value.emotes);
      taken.current = new Set(said.value.emotes.map((e) => e.word.toLowerCase()));
    } catch {
      // The list stays as it was; the action itself has told what went wrong.
    }
  }, []);
  const mark = useCallback(
    (n: number, part: Partial<Upload>) => setUploads((all) => all.map((u) => (u.n === n ? { ...u, ...part } : u))),
    [],
  );

  const send = useCallback(
    async (upload: Upload) => {
      mark(upload.n, { state: "sending", words: "" });
      const form = new FormData();
      form.set("word", upload.word);
      form.set("file", upload.file);
      const done = await call<{ id: string }>("POST", "/emotes", form);
      if (done.ok) {
        mark(upload.n, { state: "done", words: "" });
        await load();
        setTimeout(() => setUploads((all) => all.filter((u) => u.n !== upload.n)), 4_000);
      } else mark(upload.n, { state: "refused", words: done.words });
    },
    [load, mark],
  );

  const add = useCallback(
    (files: readonly File[]) => {
      const fresh = files.map((file): Upload => {
        const word = wordFrom(file.name, taken.current);
        taken.current.add(word.toLowerCase());
        counter.current += 1;
        return { n: counter.current, name: file.name, state: "waiting", words: "", file, word };
      });
      setUploads((all) => [...all, ...fresh]);
      for (const upload of fresh) queue.current = queue.current.then(() => send(upload));
    },
    [send],
  );
  const again = useCallback(
    (upload: Upload, word: string) => void (queue.current = queue.current.then(() => send({ ...upload, word }))),
    [send],
  );
  const forget = useCallback((n: number) => setUploads((all) => all.filter((u) => u.n !== n)), []);

  const rename = useCallback(
    async (emote: EmoteRow, word: string): Promise<boolean> => {
      const done = await call("PATCH", `/emotes/${emote.id}`, { word });
      if (!done.ok) tellTrouble(done.words);
      else tell(`${emote.word} is now ${word}.`, () => void call("PATCH", `/emotes/${emote.id}`, { word: emote.word }).then(load));
      await load();
      return done.ok;
    },
    [load],
  );
  const remove = useCallback(
    async (emote: EmoteRow) => {
      const done = await call("DELETE", `/emotes/${emote.id}`);
      if (!done.ok) return tellTrouble(done.words);
      await load();
      tell(
        `${emote.word} was removed.`,
        () => void call("POST", `/emotes/${emote.id}/restore`).then((back) => (back.ok ? load() : tellTrouble(back.words))),
      );
    },
    [load],
  );
  return { emotes, uploads, load, add, again, forget, rename, remove };
}
