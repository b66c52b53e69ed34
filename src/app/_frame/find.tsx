"use client";
import { Box } from "@chakra-ui/react";
import { Command } from "cmdk";
import { useRouter } from "next/navigation";
import { useEffect, useMemo, useState } from "react";
import type { FoundThing } from "../../server/web/find";
import { KeyCap } from "../../ui/key-cap";
import { type Act, keyLabel, keyOf, useChosenKeys } from "../../ui/keys";
import { scoreOf } from "../../ui/search-score";
import { call } from "./call";
import { otherPlaces, prepareParts, rehearseParts, reviewParts } from "./places";

type Entry = Readonly<{
  id: string;
  label: string;
  group: string;
  about?: string;
  words?: string;
  grave?: boolean;
  key?: string | null;
  run: () => void;
}>;
const most = 40;

/** One search over every place, action, thing of the channel, and viewer, by whatever word people use for it. */
export function Find({ acts, kinds, onDone }: Readonly<{ acts: readonly Act[]; kinds: string; onDone: () => void }>) {
  const chosen = useChosenKeys((s) => s.keys);
  const router = useRouter();
  const [sought, setSought] = useState("");
  const things = useThings();
  const viewers = useViewers(sought);
  const entries = useMemo((): readonly Entry[] => {
    const go = (path: string) => (): void => router.push(path);
    return [
      ...prepareParts.map((p) => ({
        id: p.path,
        label: p.name,
        group: "Prepare",
        about: p.about,
        words: `${p.words} ${p.id === "games" ? kinds : ""}`,
        run: go(p.path),
      })),
      ...rehearseParts.map((p) => ({ id: p.path, label: p.name, group: "Rehearse", about: p.about, words: p.words, run: go(p.path) })),
      ...reviewParts.map((p) => ({ id: p.path, label: p.name, group: "Review", about: p.about, words: p.words, run: go(p.path) })),
      ...otherPlaces.map((p) => ({ id: p.path, label: p.name, group: "Elsewhere", about: p.about, words: p.words, run: go(p.path) })),
      ...acts.map((a) => ({ ...a, key: keyOf(a, chosen) })),
      ...things.map((t) => ({
        id: `${t.group} ${t.path} ${t.label}`,
        label: t.label,
        group: t.group,
        about: t.about,
        words: t.words,
        run: go(t.path),
      })),
      ...viewers.map((v) => ({
        id: `viewer ${v.id}`,
        label: v.name,
        group: "Viewers",
        run: go(`/review/people?q=${encodeURIComponent(v.name)}`),
      })),
    ];
  }, [acts, chosen, kinds, router, things, viewers]);
  const found = useMemo(
    () =>
      entries
        .map((entry) => ({ entry, score: scoreOf(sought, entry) }))
        .filter(({ score }) => score > 0)
        .sort((a, b) => b.score - a.score)
        .slice(0, most),
    [entries, sought],
  );
  const groups = [...new Set(found.map((f) => f.entry.group))];
  return (
    <Box
      css={{
        "& [cmdk-input]": {
          width: "100%",
          padding: "14px 18px",
          fontSize: "17px",
          background: "transparent",
          borderBottom: "1px solid",
          borderColor: "line",
          outline: "none",
        },
        "& [cmdk-list]": { maxHeight: "420px", overflowY: "auto", padding: "8px" },
        "& [cmdk-group-heading]": { color: "inkSoft", fontSize: "14px", padding: "8px 10px 4px" },
        "& [cmdk-item]": {
          padding: "8px 10px",
          borderRadius: "6px",
          display: "flex",
          alignItems: "center",
          gap: "10px",
          cursor: "pointer",
        },
        "& [cmdk-item][data-selected=true]": { background: "blank" },
        "& [cmdk-item] small": { color: "inkSoft", fontSize: "14px" },
        "& [cmdk-empty]": { padding: "20px", color: "inkSoft", textAlign: "center" },
      }}
    >
      <Command label="Find anything" loop shouldFilter={false}>
        <Command.Input
          placeholder="Find a place, an action, a game, a cue, a reward, a viewer"
          value={sought}
          onValueChange={setSought}
          autoFocus
        />
        <Command.List>
          <Command.Empty>Nothing is called that here. Try another word.</Command.Empty>
          {groups.map((group) => (
            <Command.Group key={group} heading={group}>
              {found
                .filter((f) => f.entry.group === group)
                .map(({ entry }) => (
                  <Command.Item
                    key={entry.id}
                    value={entry.id}
                    onSelect={() => {
                      onDone();
                      entry.run();
                    }}
                  >
                    <span style={{ flex: 1 }}>
                      {entry.label} {entry.about !== undefined && entry.about !== "" && <small>{entry.about}</small>}
                    </span>
                    {entry.key !== undefined && entry.key !== null && <KeyCap>{keyLabel(entry.key)}</KeyCap>}
                  </Command.Item>
                ))}
            </Command.Group>
          ))}
        </Command.List>
      </Command>
    </Box>
  );
}

/** What the channel has: read once, when the search is opened. */
function useThings(): readonly FoundThing[] {
  const [things, setThings] = useState<readonly FoundThing[]>([]);
  useEffect(() => {
    let here = true;
    void call<readonly FoundThing[]>("GET", "/find").then((said) => here && said.ok && setThings(said.value));
    return () => void (here = false);
  }, []);
  return things;
}

/** Viewers by a part of their name; there may be fifty thousand, so the server looks. */
function useViewers(sought: string): readonly Readonly<{ id: string; name: string }>[] {
  const [viewers, setViewers] = useState<readonly Readonly<{ id: string; name: string }>[]>([]);
  useEffect(() => {
    if (sought.trim().length < 2) return setViewers([]);
    let here = true;
    const timer = setTimeout(() => {
      void call<readonly Readonly<{ id: string; name: string }>[]>("GET", `/people?q=${encodeURIComponent(sought.trim())}`).then(
        (said) => here && said.ok && setViewers(said.value.slice(0, 8)),
      );
    }, 150);
    return () => {
      here = false;
      clearTimeout(timer);
    };
  }, [sought]);
  return viewers;
}
