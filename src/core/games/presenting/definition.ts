import { z } from "zod";
import type { GameDefinition } from "../../module/game";
import { commanded, one, sampleViewer } from "../../module/samples";
import { presentingDue, presentingStep } from "./rules";
import {
  freshPresenting,
  presentingDefaults,
  type PresentingDurable,
  presentingDurableSchema,
  type PresentingSettings,
  presentingSettingsSchema,
} from "./settings";
import { presentingSentences, presentingToViewers } from "./words";
import { presentingFront } from "./front";

const name = z.string().max(80);
const pages = ["Mending with gold", "Bread, slowly", "Songs of the marsh"];

/** Presenting people, RULES section 14: a card about somebody who is worth a visit, and a word in chat. */
export const presenting: GameDefinition<PresentingSettings, PresentingDurable, null, never> = {
  ...presentingFront,
  settings: presentingSettingsSchema,
  defaults: presentingDefaults,
  durable: presentingDurableSchema,
  freshDurable: freshPresenting,
  freshDust: () => null,
  step: presentingStep,
  hears: ["raid"],
  dueMs: (_, durable) => presentingDue(durable),
  commands: {
    found: z.object({ name, page: z.string().max(2_000), topic: z.string().max(300), about: z.string().max(300) }),
    "not-found": z.object({ name, away: z.boolean(), late: z.boolean().default(false) }),
  },
  view: (settings, { on, now, waiting, asked }, audience) => {
    if (audience === "viewer") return { on };
    const person = now?.person ?? null;
    if (audience === "overlay") return { on, person, looks: settings.looks };
    return {
      on,
      person,
      untilMs: now?.untilMs ?? 0,
      waiting: waiting.length,
      next: waiting.map((p) => p.name),
      asked: asked.map((a) => a.name),
    };
  },
  sentences: (settings) => presentingSentences(settings),
  toldToViewers: presentingToViewers,
  aired: {
    presented: (body) => ({
      how: "presented",
      what: `${String(body["name"] ?? "")}${String(body["topic"] ?? "") === "" ? "" : `, ${String(body["topic"])}`}`,
      link: String(body["page"] ?? ""),
    }),
  },
  rounds: {
    kept: {
      presented: (body) => ({ title: String(body["name"] ?? ""), result: String(body["page"] ?? ""), people: null, round: "" }),
    },
  },
  samples: [
    {
      id: "present",
      label: "Somebody",
      key: "q",
      weight: 6,
      make: ({ times }) => {
        const who = sampleViewer(times).name;
        return {
          says: `you present ${who}, and the platform tells of them`,
          signals: [
            { afterMs: 0, signal: commanded({ do: "present", name: who }) },
            {
              afterMs: 300,
              signal: commanded({
                do: "found",
                name: who,
                page: `https://platform.example/${who}`,
                topic: pages[times % pages.length],
                about: "makes small things, slowly",
              }),
            },
          ],
        };
      },
    },
    {
      id: "nobody",
      label: "A name nobody has",
      key: "w",
      weight: 2,
      make: ({ times }) => ({
        says: "you present somebody who can’t be found",
        signals: [
          { afterMs: 0, signal: commanded({ do: "present", name: `nobody-${times}` }) },
          { afterMs: 300, signal: commanded({ do: "not-found", name: `nobody-${times}`, away: false }) },
        ],
      }),
    },
    {
      id: "raid",
      label: "A raid",
      key: "e",
      weight: 2,
      make: ({ times }) => {
        const raider = sampleViewer(times);
        return {
          says: `${raider.name} raids`,
          signals: [
            { afterMs: 0, signal: { kind: "raid", viewer: raider, viewers: 30 } },
            {
              afterMs: 300,
              signal: commanded({ do: "found", name: raider.name, page: `https://platform.example/${raider.name}`, topic: "", about: "" }),
            },
          ],
        };
      },
    },
    { id: "skip", label: "Skip", key: "i", weight: 1, make: () => one("you end what is shown", commanded({ do: "skip" })) },
  ],
};
