import { fold } from "../../kernel/fold";
import type { Viewer } from "../../signals/names";
import type { VoicesDurable, VoicesSettings } from "./settings";

/** A word's or an order's voice, then the viewer's own, then that of their role, then the first. */
export function voiceFor(
  { settings, durable }: Readonly<{ settings: VoicesSettings; durable: VoicesDurable }>,
  asked: string,
  viewer: Viewer | null,
): string {
  const there = (id: string | undefined): boolean => settings.voices.some((v) => v.id === id);
  const named = settings.voices.find((v) => v.id === asked || fold(v.name) === fold(asked))?.id;
  if (asked !== "" && named !== undefined) return named;
  const own = durable.own.find((o) => o.id === viewer?.id)?.voice;
  if (own !== undefined && there(own)) return own;
  const byRole = [...settings.byRole].reverse().find((r) => viewer?.roles.includes(r.role) === true && there(r.voice));
  return byRole?.voice ?? settings.voices[0]?.id ?? "";
}
