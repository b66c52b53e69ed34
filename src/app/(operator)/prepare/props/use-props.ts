"use client";
import { useCallback, useEffect, useRef, useState } from "react";
import { mostOf, tooLargeInWords } from "../../../../core/props/sizes";
import type { Added, PropInMaking, PropWithUses } from "../../../../server/web/props";
import { tell, tellTrouble } from "../../../../ui/toaster";
import { call } from "../../../_frame/call";
import { sendFile } from "../../../_frame/send-file";

export type Upload = Readonly<{
  n: number;
  name: string;
  share: number;
  state: "waiting" | "sending" | "making" | "refused";
  words: string;
  /** While it waits or is being sent. */
  cancel?: () => void;
}>;

export function useProps(first: readonly PropWithUses[]) {
  const [props, setProps] = useState(first);
  const [uploads, setUploads] = useState<readonly Upload[]>([]);
  const [making, setMaking] = useState<readonly PropInMaking[]>([]);
  const counter = useRef(0);
  const queue = useRef<Promise<void>>(Promise.resolve());

  const load = useCallback(async () => {
    try {
      const said = (await (await fetch("/api/props")).json()) as { ok: boolean; value: { props: PropWithUses[]; making: PropInMaking[] } };
      if (!said.ok) return;
      setProps(said.value.props);
      setMaking(said.value.making);
    } catch {
      // The list stays as it was; the action itself has told what went wrong.
    }
  }, []);
  // What others added is being made too, or was when this page was opened.
  useEffect(() => void load(), [load]);
  const atWork = making.some((m) => m.state !== "failed");
  useEffect(() => {
    if (!atWork) return;
    const timer = setInterval(() => void load(), 1_000);
    return () => clearInterval(timer);
  }, [atWork, load]);
  const unmake = useCallback(async (id: string) => {
    setMaking((all) => all.filter((m) => m.id !== id));
    await call("DELETE", `/media/${id}`);
  }, []);
  const mark = useCallback(
    (n: number, part: Partial<Upload>) => setUploads((all) => all.map((u) => (u.n === n ? { ...u, ...part } : u))),
    [],
  );
  const forget = useCallback((n: number) => setUploads((all) => all.filter((u) => u.n !== n)), []);

  const settle = useCallback(
    (n: number, added: readonly Added[]) => {
      forget(n);
      const no = added.filter((a) => !a.ok);
      setUploads((all) => [
        ...all,
        ...no.map((a): Upload => ({ n: (counter.current += 1), name: a.name, share: 1, state: "refused", words: a.words })),
      ]);
      const good = added.filter((a) => a.ok && a.making !== true).length;
      if (good > 0)
        tell(good === 1 ? `${added.find((a) => a.ok && a.making !== true)?.name ?? "One"} was added.` : `${good} props were added.`);
    },
    [forget],
  );
  const add = useCallback(
    (files: readonly File[]) => {
      for (const file of files) {
        const n = (counter.current += 1);
        const most = mostOf(file.name);
        // Told at once, and not when its turn comes.
        if (file.size > most) {
          setUploads((all) => [...all, { n, name: file.name, share: 0, state: "refused", words: tooLargeInWords(most) }]);
          continue;
        }
        const calling = new AbortController();
        const { signal } = calling;
        const cancel = (): void => {
          calling.abort();
          forget(n);
        };
        setUploads((all) => [...all, { n, name: file.name, share: 0, state: "waiting", words: "", cancel }]);
        queue.current = queue.current.then(async () => {
          if (signal.aborted) return;
          mark(n, { state: "sending" });
          const onShare = (share: number): void => mark(n, { share, state: share >= 1 ? "making" : "sending" });
          const done = await sendFile<readonly Added[]>("/props", file, { most, onShare, signal });
          if (done === null) forget(n);
          else if (done.ok) settle(n, done.value);
          else mark(n, { state: "refused", words: done.words });
          await load();
        });
      }
    },
    [forget, load, mark, settle],
  );
  const addAddress = useCallback(
    async (address: string): Promise<boolean> => {
      const n = (counter.current += 1);
      setUploads((all) => [...all, { n, name: address, share: 0.5, state: "making", words: "" }]);
      const done = await call<readonly Added[]>("POST", "/props", { address });
      if (done.ok) settle(n, done.value);
      else mark(n, { state: "refused", words: done.words });
      await load();
      return done.ok;
    },
    [load, mark, settle],
  );
  const change = useCallback(
    async (id: string, body: unknown): Promise<boolean> => {
      const done = await call("PATCH", `/props/${id}`, body);
      if (!done.ok) tellTrouble(done.words);
      await load();
      return done.ok;
    },
    [load],
  );
  const replace = useCallback(
    async (prop: PropWithUses, file: File) => {
      const done = await sendFile(`/props/${prop.id}`, file, { method: "PUT", most: mostOf(file.name) });
      if (done === null) return;
      if (done.ok && prop.kind === "video") tell(`${prop.name} is made anew; what uses it shows the new one when it is done.`);
      else if (done.ok) tell(`${prop.name} was replaced${prop.usedIn.length === 0 ? "" : `, in ${prop.usedIn.join(" and ")} too`}.`);
      else tellTrouble(done.words);
      await load();
    },
    [load],
  );
  const remove = useCallback(
    async (prop: PropWithUses) => {
      const done = await call("DELETE", `/props/${prop.id}`);
      if (!done.ok) return tellTrouble(done.words);
      await load();
      const still = prop.usedIn.length === 0 ? "" : ` ${prop.usedIn.join(" and ")} will show nothing in its place.`;
      tell(
        `${prop.name} was removed.${still}`,
        () => void call("POST", `/props/${prop.id}/restore`).then((back) => (back.ok ? load() : tellTrouble(back.words))),
      );
    },
    [load],
  );
  return { props, making, unmake, uploads, load, add, addAddress, forget, change, replace, remove };
}
