/**
 * Points by double entry (RULES section 10). An entry moves points between accounts and always sums to
 * nothing; its key is unique, so that the same thing can't be paid twice. Viewers' accounts never fall
 * below zero; the channel's own may: it issues points.
 */
export const ownAccounts = ["issued", "spent", "held", "pool", "owed"] as const;
export type OwnAccount = (typeof ownAccounts)[number];
/** A viewer's account is the viewer's id behind `v:`. */
export type AccountId = OwnAccount | `v:${string}`;
export const viewerAccount = (viewerId: string): AccountId => `v:${viewerId}`;
export const isViewerAccount = (account: string): account is `v:${string}` => account.startsWith("v:");

export const reasons = [
  "presence",
  "signal",
  "gift",
  "adjusted",
  "bought",
  "asked",
  "done",
  "refunded",
  "opening",
  "merged",
  "staked",
  "won",
  "reversed",
  "repaid",
] as const;
export type Reason = (typeof reasons)[number];
export type Posting = Readonly<{ account: AccountId; amount: number }>;
export type Entry = Readonly<{
  key: string;
  atMs: number;
  reason: Reason;
  /** What it was for, in a word the operator knows: a reward's name, a signal's kind. */
  about: string;
  /** The operator in whose name it was; empty for nobody's. */
  by: string;
  postings: readonly Posting[];
}>;
type Head = Omit<Entry, "postings" | "reason">;

const whole = (amount: number): number => {
  if (!Number.isSafeInteger(amount) || amount < 0) throw new Error("points are whole and not less than none");
  return amount;
};
const moved = (head: Head, reason: Reason, from: AccountId, to: AccountId, amount: number): Entry => ({
  ...head,
  reason,
  postings: [
    { account: from, amount: -whole(amount) },
    { account: to, amount },
  ],
});

export const earned = (head: Head, reason: Extract<Reason, "presence" | "signal" | "opening">, viewer: string, amount: number): Entry =>
  moved(head, reason, "issued", viewerAccount(viewer), amount);
/** The same kind of earning for many at once, in one entry: what a round of presence pays. */
export const earnedByMany = (
  head: Head,
  reason: Extract<Reason, "presence" | "opening">,
  to: readonly Readonly<{ viewer: string; amount: number }>[],
): Entry => ({
  ...head,
  reason,
  postings: [
    { account: "issued", amount: -to.reduce((sum, t) => sum + whole(t.amount), 0) },
    ...to.map((t) => ({ account: viewerAccount(t.viewer), amount: t.amount })),
  ],
});
/** All that one account has goes to another: somebody goes by a new name. */
export const merged = (head: Head, from: string, to: string, amount: number): Entry =>
  moved(head, "merged", viewerAccount(from), viewerAccount(to), amount);
/** Bought and done at once: the points are gone. */
export const bought = (head: Head, viewer: string, price: number): Entry => moved(head, "bought", viewerAccount(viewer), "spent", price);
/** Asked for: the points are held until somebody decides. */
export const asked = (head: Head, viewer: string, price: number): Entry => moved(head, "asked", viewerAccount(viewer), "held", price);
export const done = (head: Head, price: number): Entry => moved(head, "done", "held", "spent", price);
/** Put into a game, for a ticket or on an outcome: the points lie in its pool until it is decided. */
export const staked = (head: Head, viewer: string, amount: number): Entry => moved(head, "staked", viewerAccount(viewer), "pool", amount);
/** What of a pool the channel keeps; and back, where that was a slip. */
export const kept = (head: Head, amount: number): Entry => moved(head, "done", "pool", "spent", amount);
export const unkept = (head: Head, amount: number): Entry => moved(head, "reversed", "spent", "pool", amount);
/** What lies in a pool goes to many at once, each their share. */
export const won = (head: Head, to: readonly Readonly<{ viewer: string; amount: number }>[]): Entry => ({
  ...head,
  reason: "won",
  postings: [
    { account: "pool", amount: -to.reduce((sum, t) => sum + whole(t.amount), 0) },
    ...to.map((t) => ({ account: viewerAccount(t.viewer), amount: t.amount })),
  ],
});
/** Won by a slip: it lies in the pool again. `owed` of it is not there any more, and is owed by the viewer from then on. */
export const unwon = (head: Head, viewer: string, amount: number, owed: number): Entry => ({
  ...head,
  reason: "reversed",
  postings: [
    { account: viewerAccount(viewer), amount: -whole(amount - owed) },
    ...(owed > 0 ? [{ account: "owed" as const, amount: -whole(owed) }] : []),
    { account: "pool", amount: whole(amount) },
  ],
});
/** What somebody owed, out of what they earned. */
export const repaid = (head: Head, viewer: string, amount: number): Entry => moved(head, "repaid", viewerAccount(viewer), "owed", amount);
/** Done by a slip: it waits again. */
export const undone = (head: Head, price: number): Entry => moved(head, "asked", "spent", "held", price);
export const refunded = (head: Head, viewer: string, price: number, from: "held" | "spent" | "pool"): Entry =>
  moved(head, "refunded", from, viewerAccount(viewer), price);
/** Given by one viewer to another; `feePoints` stays with the channel. */
export const given = (head: Head, from: string, to: string, amount: number, feePoints: number): Entry => ({
  ...head,
  reason: "gift",
  postings: [
    { account: viewerAccount(from), amount: -whole(amount) },
    { account: viewerAccount(to), amount: whole(amount - feePoints) },
    ...(feePoints > 0 ? [{ account: "spent" as const, amount: feePoints }] : []),
  ],
});
/** Set right by an operator, up or down; what is taken goes back to where points come from. */
export const adjusted = (head: Head, viewer: string, by: number): Entry =>
  by >= 0 ? moved(head, "adjusted", "issued", viewerAccount(viewer), by) : moved(head, "adjusted", viewerAccount(viewer), "issued", -by);

export const isBalanced = (entry: Entry): boolean => entry.postings.reduce((sum, p) => sum + p.amount, 0) === 0;

/** What entries change, by account: only what is not nothing, in the order of the accounts' names. */
export function changesOf(entries: readonly Entry[]): readonly Posting[] {
  const sums = new Map<AccountId, number>();
  for (const { postings } of entries) for (const p of postings) sums.set(p.account, (sums.get(p.account) ?? 0) + p.amount);
  return [...sums]
    .filter(([, amount]) => amount !== 0)
    .map(([account, amount]) => ({ account, amount }))
    .sort((a, b) => (a.account < b.account ? -1 : 1));
}

export type LedgerFault = Readonly<{ what: "unbalanced" | "balance" | "negative" | "twice"; about: string; found: number; meant: number }>;
/**
 * Rebuilds every balance from the entries and says what differs from the balances that are kept. Nothing
 * found means: the ledger balances to the point.
 */
export function checkLedger(entries: Iterable<Entry>, balances: ReadonlyMap<string, number>): readonly LedgerFault[] {
  const faults: LedgerFault[] = [];
  const sums = new Map<string, number>();
  const keys = new Set<string>();
  for (const entry of entries) {
    if (!isBalanced(entry))
      faults.push({ what: "unbalanced", about: entry.key, found: entry.postings.reduce((s, p) => s + p.amount, 0), meant: 0 });
    if (keys.has(entry.key)) faults.push({ what: "twice", about: entry.key, found: 2, meant: 1 });
    keys.add(entry.key);
    for (const p of entry.postings) sums.set(p.account, (sums.get(p.account) ?? 0) + p.amount);
  }
  for (const account of [...new Set([...sums.keys(), ...balances.keys()])].sort((a, b) => (a < b ? -1 : 1))) {
    const [found, meant] = [balances.get(account) ?? 0, sums.get(account) ?? 0];
    if (found !== meant) faults.push({ what: "balance", about: account, found, meant });
    if (isViewerAccount(account) && found < 0) faults.push({ what: "negative", about: account, found, meant: 0 });
  }
  return faults;
}

/** What an entry makes and takes of what viewers have; what goes from one to another is neither, and what is given back was never taken. */
export function flowOf({ postings, reason }: Entry): Readonly<{ made: number; taken: number }> {
  const moved = postings.reduce((sum, p) => sum + (isViewerAccount(p.account) ? p.amount : 0), 0);
  return moved > 0 && reason !== "refunded" ? { made: moved, taken: 0 } : { made: 0, taken: -moved };
}
