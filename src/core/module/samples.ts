import type { Command } from "../signals/signal";
import type { Role, Viewer } from "../signals/names";
import { counted } from "../words/sentence";
import type { GivenSignal, Sample, Tried } from "./game";

/** Signals that games try themselves with: made up, each time by another of the made-up viewers. */
export const sampleNames = [
  "mossy_teapot",
  "quietferry",
  "tin_lantern",
  "hollowreed",
  "oatcake_ada",
  "ferrule7",
  "pale_oar",
  "smallharbour",
  "eelgrass",
  "loamy",
] as const;
export const sampleViewer = (times: number, roles: readonly Role[] = []): Viewer => {
  const name = sampleNames[times % sampleNames.length] ?? "viewer";
  return { id: name, name, roles };
};
export const one = (says: string, signal: GivenSignal): Tried => ({ says, signals: [{ afterMs: 0, signal }] });
export const said = (viewer: Viewer, text: string): GivenSignal => ({ kind: "message", viewer, text, marks: [] });
export const commanded = (command: Command): GivenSignal => ({ kind: "command", gameId: "preview", by: "you", viewer: null, command });

/** A message as somebody typed it. */
export const typed = (text: string, as: Role): Tried =>
  one(`“${text.length > 40 ? `${text.slice(0, 40)}…` : text}”`, said(sampleViewer(0, as === "viewer" ? [] : [as]), text));

/** What a platform sends, each with the amount one gives it. `key` of the strip, in their order. */
export const platformSamples: readonly Sample[] = [
  {
    id: "follow",
    label: "A follow",
    key: "q",
    weight: 6,
    make: ({ times }) => one(`${sampleViewer(times).name} follows`, { kind: "follow", viewer: sampleViewer(times) }),
  },
  {
    id: "membership",
    label: "A membership",
    key: "w",
    weight: 3,
    make: ({ amount, times }) =>
      one(`${sampleViewer(times).name} is a member for ${counted(amount, "month")}`, {
        kind: "membership",
        viewer: sampleViewer(times),
        months: Math.max(1, Math.min(2_400, amount)),
        text: "",
        fromGift: "",
      }),
  },
  {
    id: "gift",
    label: "Gifts",
    key: "e",
    weight: 2,
    make: ({ amount, times }) =>
      one(`${sampleViewer(times).name} gives ${counted(amount, "membership")}`, {
        kind: "gift",
        viewer: sampleViewer(times),
        count: Math.max(1, amount),
        recipients: [],
      }),
  },
  {
    id: "tip",
    label: "A tip",
    key: "r",
    weight: 4,
    make: ({ amount, times }) =>
      one(`${sampleViewer(times).name} tips ${amount}.00`, {
        kind: "tip",
        viewer: sampleViewer(times),
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
    weight: 4,
    make: ({ amount, times }) =>
      one(`${sampleViewer(times).name} sends reactions worth ${amount}`, {
        kind: "reaction",
        viewer: sampleViewer(times),
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
    weight: 1,
    make: ({ amount, times }) =>
      one(`${sampleViewer(times).name} raids with ${counted(amount, "viewer")}`, {
        kind: "raid",
        viewer: sampleViewer(times),
        viewers: amount,
      }),
  },
  {
    id: "host",
    label: "Hosting",
    weight: 1,
    make: ({ amount, times }) =>
      one(`${sampleViewer(times).name} hosts with ${counted(amount, "viewer")}`, {
        kind: "host",
        viewer: sampleViewer(times),
        viewers: amount,
      }),
  },
];
