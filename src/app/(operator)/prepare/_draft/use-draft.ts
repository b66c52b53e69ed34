"use client";
import { useCallback, useEffect, useMemo, useRef, useState } from "react";
import type * as Modules from "../../../../core/modules";
import { firstProblem } from "../../../../core/words/problem";
import { merge } from "../../../../core/kernel/merge";
import { withValueAt } from "../../../../core/words/sentence";
import { call } from "../../../_frame/call";
import { useChanged } from "../../../_frame/live";
import { oneAtATime } from "./one-at-a-time";

/** Published and draft states of one game, as the server has them. */
export type ServerDraft = Readonly<{ settings: unknown; revision: number; by: string; version: number; published: unknown }>;
type Known = typeof Modules | null;
/** What a module of this kind can’t be set to, in words; empty when all is well, or while that is not known here. */
const problemIn = (modules: Known, kind: string, settings: unknown): string => {
  const read = modules?.moduleOf(kind)?.settings.safeParse(settings);
  return read?.success === false ? firstProblem(read.error) : "";
};
/** All modules' schemas, which come after the page; until then the server says what can't be saved. */
function useModules(): Known {
  const [modules, setModules] = useState<Known>(null);
  useEffect(() => {
    import("../../../../core/modules").then(setModules, () => undefined);
  }, []);
  return modules;
}
export type SaveState = "saved" | "saving" | "waiting" | "conflict";
const saveAfterMs = 500;
const mostUndo = 100;

/**
 * A draft that saves itself. Nobody overwrites what they have not seen: when somebody else saved in between, what
 * each changed is brought together; where both changed the same, both are kept until the operator chooses. While the server is away what was typed stays here
 * and is saved when it is back.
 */
export function useDraft(id: string, first: ServerDraft & Readonly<{ kind: string }>) {
  const { kind } = first;
  const [settings, setSettings] = useState<unknown>(first.settings);
  const [state, setState] = useState<SaveState>("saved");
  const [trouble, setTrouble] = useState("");
  /** Why what stands here can't be saved as it is. */
  const modules = useModules();
  const problem = useMemo(() => problemIn(modules, kind, settings), [modules, kind, settings]);
  const [theirs, setTheirs] = useState<ServerDraft | null>(null);
  const [published, setPublished] = useState({ version: first.version, settings: first.published });
  const [took, setTook] = useState("");
  /** Who changed other things meanwhile; both are kept. */
  const [joined, setJoined] = useState("");
  const [undoable, setUndoable] = useState({ undo: 0, redo: 0 });
  const past = useRef<unknown[]>([]);
  const future = useRef<unknown[]>([]);
  const revision = useRef(first.revision);
  const current = useRef<unknown>(first.settings);
  const savedText = useRef(JSON.stringify(first.settings));
  const timer = useRef(0);
  /** Sent, and nobody said what became of it: the server may have it. */
  const unanswered = useRef("");
  const inConflict = useRef(false);
  const again = useRef<() => Promise<boolean>>(async () => false);
  const known = useRef<Known>(null);

  const show = useCallback((next: unknown) => {
    current.current = next;
    setSettings(next);
    setUndoable({ undo: past.current.length, redo: future.current.length });
  }, []);

  const learn = useCallback(async (): Promise<ServerDraft | null> => {
    const now = await call<ServerDraft>("POST", `/games/${id}/draft`);
    if (!now.ok) return null;
    setPublished({ version: now.value.version, settings: now.value.published });
    return now.value;
  }, [id]);

  /** What somebody else saved meanwhile and what is changed here, together; false where both changed the same. */
  const join = useCallback(
    (other: ServerDraft): boolean => {
      const merged = merge(JSON.parse(savedText.current), current.current, other.settings);
      if (merged.clashes > 0) return false;
      revision.current = other.revision;
      savedText.current = JSON.stringify(other.settings);
      past.current = [...past.current.slice(-mostUndo), current.current];
      future.current = [];
      show(merged.value);
      setTrouble("");
      setJoined(other.by || "Somebody");
      return true;
    },
    [show],
  );

  /** What the server has is what was sent from here, whose answer was lost: then it is ours, and nobody else's. */
  const isOurs = useCallback((other: ServerDraft): boolean => {
    if (unanswered.current === "" || JSON.stringify(other.settings) !== unanswered.current) return false;
    revision.current = other.revision;
    savedText.current = unanswered.current;
    unanswered.current = "";
    return true;
  }, []);
  const saveOnce = useCallback(async (): Promise<boolean> => {
    for (;;) {
      clearTimeout(timer.current);
      if (inConflict.current) return false;
      const sent = current.current;
      const text = JSON.stringify(sent);
      if (text === savedText.current) {
        setTrouble("");
        setState("saved");
        return true;
      }
      // What the server would refuse is not sent: it is told where it stands.
      if (problemIn(known.current, kind, sent) !== "") {
        setState("waiting");
        return false;
      }
      setState("saving");
      const done = await call<{ revision: number }>("PUT", `/games/${id}/draft`, { revision: revision.current, settings: sent });
      if (done.ok) {
        revision.current = done.value.revision;
        savedText.current = text;
        unanswered.current = "";
        continue;
      }
      if (done.code === "draft/changed-elsewhere") {
        const other = await learn();
        // The next round brings both.
        if (other !== null && (isOurs(other) || join(other))) continue;
        setTrouble(done.words);
        inConflict.current = true;
        setState("conflict");
        setTheirs(other);
        return false;
      }
      setTrouble(done.words);
      setState("waiting");
      if (/away|defect/.test(done.code)) {
        unanswered.current = text;
        timer.current = window.setTimeout(() => void again.current(), 2_500);
      }
      return false;
    }
  }, [id, isOurs, join, kind, learn]);
  // One save at a time, each with the revision of the last answer: two would each take the other for somebody else.
  const { run: save, idle } = useMemo(() => oneAtATime(saveOnce), [saveOnce]);
  useEffect(() => {
    again.current = save;
    known.current = modules;
  }, [save, modules]);

  const change = useCallback(
    (next: unknown) => {
      past.current = [...past.current.slice(-mostUndo), current.current];
      future.current = [];
      show(next);
      setTook("");
      setJoined("");
      clearTimeout(timer.current);
      if (!inConflict.current) setState("saving");
      if (!inConflict.current) timer.current = window.setTimeout(() => void save(), saveAfterMs);
    },
    [save, show],
  );
  const set = useCallback(
    (path: string, value: unknown) => {
      const next = withValueAt(current.current, path, value);
      if (JSON.stringify(next) !== JSON.stringify(current.current)) change(next);
    },
    [change],
  );
  const walk = useCallback(
    (from: { current: unknown[] }, to: { current: unknown[] }) => {
      const next = from.current.pop();
      if (next === undefined) return;
      to.current.push(current.current);
      show(next);
      clearTimeout(timer.current);
      if (inConflict.current) return;
      setState("saving");
      timer.current = window.setTimeout(() => void save(), saveAfterMs);
    },
    [save, show],
  );

  /** Theirs becomes ours; ours stays one undo away. */
  const keepTheirs = useCallback(
    (other: ServerDraft) => {
      inConflict.current = false;
      revision.current = other.revision;
      savedText.current = JSON.stringify(other.settings);
      past.current = [...past.current.slice(-mostUndo), current.current];
      future.current = [];
      show(other.settings);
      setTheirs(null);
      setTrouble("");
      setState("saved");
    },
    [show],
  );
  const keepMine = useCallback(
    (other: ServerDraft) => {
      inConflict.current = false;
      revision.current = other.revision;
      savedText.current = JSON.stringify(other.settings);
      setTheirs(null);
      setTrouble("");
      void save();
    },
    [save],
  );

  useChanged(
    useCallback(
      (changed) => {
        const linked = changed.what === "linked";
        if (!linked && changed.id !== id) return;
        if (changed.what === "published") return void learn();
        void (async () => {
          // Our own save is told too, sometimes before its answer is here.
          await idle();
          if ((!linked && changed.revision <= revision.current) || inConflict.current) return;
          const now = await learn();
          await idle();
          if (now === null || now.revision <= revision.current || isOurs(now)) return;
          if (JSON.stringify(current.current) === savedText.current) {
            keepTheirs(now);
            setTook(now.by);
          } else if (join(now)) void save();
          else {
            clearTimeout(timer.current);
            inConflict.current = true;
            setTheirs(now);
            setState("conflict");
          }
        })();
      },
      [id, idle, isOurs, join, keepTheirs, learn, save],
    ),
  );

  useEffect(() => {
    const warn = (event: BeforeUnloadEvent): void => {
      if (JSON.stringify(current.current) !== savedText.current) event.preventDefault();
    };
    window.addEventListener("beforeunload", warn);
    return () => {
      window.removeEventListener("beforeunload", warn);
      clearTimeout(timer.current);
      if (JSON.stringify(current.current) !== savedText.current) void save();
    };
  }, [save]);

  return {
    settings,
    state,
    trouble,
    problem,
    theirs,
    published,
    took,
    joined,
    undoable,
    set,
    change,
    save,
    keepMine,
    keepTheirs,
    setPublished,
    revision: () => revision.current,
    undo: useCallback(() => walk(past, future), [walk]),
    redo: useCallback(() => walk(future, past), [walk]),
  };
}
export type Draft = ReturnType<typeof useDraft>;
