import { useMemo } from "react";
import { frontOf } from "../../../core/games/fronts";
import type { PeopleSource } from "../../../games/shown";
import { tellTrouble } from "../../../ui/toaster";
import { useLive } from "../../_frame/live";

type Answer = Readonly<{ value?: { records: readonly Readonly<{ viewer: Readonly<{ id: string; name: string }> | null }>[] } }>;

/** People that running games name in their records, each once, for games that take people in. */
export function usePeople(): readonly PeopleSource[] {
  const games = useLive((s) => s.standing?.games);
  const known = (games ?? []).map((g) => `${g.id} ${g.kind} ${g.name}`).join("\n");
  return useMemo(
    () =>
      known.split("\n").flatMap((line): PeopleSource[] => {
        const [id = "", kind = "", ...name] = line.split(" ");
        const of = frontOf(kind)?.people;
        if (of === undefined) return [];
        const load = async (): Promise<readonly Readonly<{ id: string; name: string }>[]> => {
          const answer = await fetch(`/api/games/${id}/records?kind=${encodeURIComponent(of.kind)}`).catch(() => null);
          const said = (await answer?.json().catch(() => null)) as Answer | null | undefined;
          if (said?.value === undefined) tellTrouble("Its records can’t be read at the moment. Try again.");
          const people = (said?.value?.records ?? []).flatMap((r) => (r.viewer === null ? [] : [r.viewer]));
          return [...new Map(people.map((p) => [p.id, p])).values()];
        };
        return [{ id, words: of.words.replace("{game}", name.join(" ")), load }];
      }),
    [known],
  );
}
