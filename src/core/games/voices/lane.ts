import { alertLookDefaults } from "../../alerts/alert";
import type { Order } from "../../module/order";
import type { Spoken, VoicesDurable, VoicesSettings } from "./settings";
import { graphemesOf } from "./clean";

export type Laned = Readonly<{ durable: VoicesDurable; orders: readonly Order[] }>;
/** An engine that takes longer is given up: the text is skipped, and said. */
export const makingMs = 8_000;
/** A breath after the last word before it counts as over. */
const tailMs = 250;
/** While overlays are hushed nothing begins; it is looked again so often. */
const hushedMs = 1_000;

/** So long a text stands that is only read. */
export const readingMs = (text: string): number => Math.max(4_000, Math.min(20_000, graphemesOf(text).length * 65));
const voiceOf = (settings: VoicesSettings, id: string) => settings.voices.find((v) => v.id === id) ?? settings.voices[0];

/** Who still waits for somebody's yes lets those behind go by. */
const nextOf = ({ waiting }: Pick<VoicesDurable, "waiting">): Spoken | undefined => waiting.find((t) => !t.asks);

/** Ends what is over, and begins what may begin by now. */
export function pass(settings: VoicesSettings, given: VoicesDurable, atMs: number, hushed: boolean): Laned {
  let durable = given;
  if (durable.now !== null && durable.now.untilMs <= atMs)
    durable = { ...durable, now: null, freeMs: Math.max(durable.freeMs, atMs + settings.gapMs) };
  const next = nextOf(durable);
  if (durable.now !== null || durable.held || next === undefined || next.fromMs > atMs || durable.freeMs > atMs)
    return { durable, orders: [] };
  if (hushed) return { durable: { ...durable, freeMs: atMs + hushedMs }, orders: [] };
  const waiting = durable.waiting.filter((t) => t !== next);
  const voice = voiceOf(settings, next.voice);
  if (next.spoken === "" || voice === undefined) return begin(settings, { ...durable, waiting }, next, readingMs(next.shown), null, atMs);
  return {
    durable: { ...durable, waiting, now: { text: next, phase: "making", sinceMs: atMs, untilMs: atMs + makingMs } },
    orders: [{ do: "speak", n: next.n, text: next.spoken, voice, ahead: false }],
  };
}

/** It is made, or needs no making: heard, seen, or both. */
export function begin(settings: VoicesSettings, durable: VoicesDurable, text: Spoken, ms: number, url: string | null, atMs: number): Laned {
  const untilMs = atMs + ms + tailMs;
  const name = text.viewer?.name ?? "";
  return {
    durable: { ...durable, now: { text, phase: "said", sinceMs: atMs, untilMs } },
    orders:
      url === null
        ? []
        : [
            {
              do: "show",
              queue: "",
              alert: {
                id: `voice.${text.n}.${atMs}`,
                picture: "",
                sound: "",
                speech: { url, name, text: text.shown === "" ? text.spoken : text.shown },
                volume: (settings.volume / 100) * ((voiceOf(settings, text.voice)?.level ?? 100) / 100),
                text: "",
                ms: Math.max(200, ms),
                look: alertLookDefaults,
              },
            },
          ],
  };
}

/** When something ends or may begin next; null when nothing is due. */
export function laneDue({ now, waiting, held, freeMs }: VoicesDurable): number | null {
  const next = nextOf({ waiting });
  const begins = next === undefined || held ? null : Math.max(next.fromMs, freeMs, now?.untilMs ?? 0);
  if (now === null) return begins;
  return begins === null ? now.untilMs : Math.min(now.untilMs, begins);
}
