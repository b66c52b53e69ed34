import type { BossDurable } from "../../core/games/boss-battle/settings";
import type { Viewer } from "../../core/signals/signal";
import type { TryButton, Tried } from "../sheet";

const names = ["mossy_teapot", "quietferry", "tin_lantern", "hollowreed", "oatcake_ada", "ferrule7", "pale_oar"];
const striker = (times: number): Viewer => {
  const name = names[times % names.length] ?? "viewer";
  return { id: name, name, roles: [] };
};
type Given = Tried["signals"][number]["signal"];
const one = (says: string, signal: Given): Tried => ({ says, signals: [{ afterMs: 0, signal }] });
const hand = (hand: Extract<Given, { kind: "hand" }>["hand"]): Given => ({
  kind: "hand",
  gameId: "preview",
  by: "you",
  viewer: null,
  hand,
});

/** Every signal a boss can meet, with an amount of one's own; the champion's too. */
export const bossTries: readonly TryButton[] = [
  {
    id: "follow",
    label: "A follow",
    key: "q",
    make: (_, times) => one(`${striker(times).name} follows`, { kind: "follow", viewer: striker(times) }),
  },
  {
    id: "membership",
    label: "A membership",
    key: "w",
    make: ({ amount }, times) =>
      one(`${striker(times).name} is a member for ${amount} months`, {
        kind: "membership",
        viewer: striker(times),
        months: Math.max(1, Math.min(2_400, amount)),
        text: "",
        fromGift: "",
      }),
  },
  {
    id: "gift",
    label: "Gifts",
    key: "e",
    make: ({ amount }, times) =>
      one(`${striker(times).name} gives ${amount} memberships`, {
        kind: "gift",
        viewer: striker(times),
        count: Math.max(1, amount),
        recipients: [],
      }),
  },
  {
    id: "tip",
    label: "A tip",
    key: "r",
    make: ({ amount }, times) =>
      one(`${striker(times).name} tips ${amount}.00`, {
        kind: "tip",
        viewer: striker(times),
        amountMinor: amount * 100,
        currency: "EUR",
        homeMinor: amount * 100,
        text: "",
      }),
  },
  {
    id: "reaction",
    label: "Paid reactions",
    key: "t",
    make: ({ amount }, times) =>
      one(`${striker(times).name} sends reactions worth ${amount}`, {
        kind: "reaction",
        viewer: striker(times),
        reaction: "sherd",
        count: Math.max(1, amount),
        value: amount,
        text: "",
      }),
  },
  {
    id: "raid",
    label: "A raid",
    key: "y",
    make: ({ amount }, times) =>
      one(`${striker(times).name} raids with ${amount} viewers`, { kind: "raid", viewer: striker(times), viewers: amount }),
  },
  {
    id: "host",
    label: "Hosting",
    make: ({ amount }, times) =>
      one(`${striker(times).name} hosts with ${amount} viewers`, { kind: "host", viewer: striker(times), viewers: amount }),
  },
  {
    id: "champion",
    label: "The champion’s own",
    key: "u",
    make: ({ amount, durable }) => {
      // The preview's rules have made it.
      const { boss } = durable as BossDurable;
      const viewer: Viewer = { id: boss.viewerId ?? "nobody", name: boss.viewerId === null ? "quietferry" : boss.name, roles: [] };
      const signal = { kind: "tip" as const, viewer, amountMinor: amount * 100, currency: "EUR", homeMinor: amount * 100, text: "" };
      return one(
        boss.viewerId === null ? "no viewer reigns yet: this is anyone’s tip" : `${boss.name}, who reigns, tips ${amount}.00`,
        signal,
      );
    },
  },
  {
    id: "unknown",
    label: "Somebody unknown",
    make: ({ amount }) =>
      one(`somebody unknown gives ${amount} memberships`, { kind: "gift", viewer: null, count: Math.max(1, amount), recipients: [] }),
  },
  { id: "hit", label: "Your hit", key: "i", make: ({ amount }) => one(`you hit it by ${amount}`, hand({ do: "damage", amount })) },
  { id: "heal", label: "Your heal", make: ({ amount }) => one(`you heal it by ${amount}`, hand({ do: "heal", amount })) },
  { id: "undo", label: "Undo the last hit", key: "o", make: () => one("you undo the last hit", hand({ do: "undo" })) },
];

export const tryBossMessage = (text: string, as: "viewer" | "member" | "vip" | "moderator" | "streamer"): Tried =>
  one(`“${text.length > 40 ? `${text.slice(0, 40)}…` : text}”`, {
    kind: "message",
    viewer: { id: "mossy_teapot", name: "mossy_teapot", roles: as === "viewer" ? [] : [as] },
    text,
    marks: [],
  });
