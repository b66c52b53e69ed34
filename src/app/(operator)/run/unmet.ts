type Game = Readonly<{ kind: string; view: Record<string, unknown> }>;
/** Somebody who bought something on the platform that was refused here, as the shop tells of them. */
export type Unmet = Readonly<{ id: string; atMs: number; viewer: string; title: string; price: number; why: string }>;

/** What was bought on the platform and not given, by the view that operators have of the shop. */
export const unmetIn = (games: readonly Game[]): readonly Unmet[] =>
  // The shop's own rules write it.
  (games.find((g) => g.kind === "rewards")?.view["unmet"] ?? []) as readonly Unmet[];
