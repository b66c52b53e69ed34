import { count } from "../../../core/words/sentence";
import { tell } from "../../../ui/toaster";
import { commandAndTell, theRewards } from "../../_frame/show";
import type { Decision } from "./decision";

type Game = Readonly<{ kind: string; view: Record<string, unknown> }>;
/** Somebody who bought something on the platform that was refused here, as the shop tells of them. */
type Unmet = Readonly<{ id: string; atMs: number; viewer: string; title: string; price: number; why: string }>;

/** What was bought on the platform and not given: a person gives it after all, or the points back there. */
export const unmetDecisions = (games: readonly Game[]): readonly Decision[] =>
  // The shop's own rules write it.
  ((games.find((g) => g.kind === "rewards")?.view["unmet"] ?? []) as readonly Unmet[]).map(({ id, atMs, viewer, title, price, why }) => ({
    id: `unmet.${id}`,
    sinceMs: atMs,
    words: `${viewer} bought “${title}” on the platform and got nothing: ${why}`,
    about: `${count(price)} of the platform’s points`,
    main: "Give it now",
    other: "Settled there",
    decide: async (yes) => {
      const done = await commandAndTell(theRewards, { do: "unmet", id, what: yes ? "give" : "settled" });
      if (done) tell(yes ? `${title} for ${viewer}: given.` : `Settled: give ${viewer} their points back on the platform.`);
    },
  }));
