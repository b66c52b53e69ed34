import type { Audience } from "../../module/module";
import type { GreetingDurable, GreetingSettings, GreetingView } from "./settings";

/** Names are shown, ids are not. */
export function greetingView(
  settings: GreetingSettings,
  durable: GreetingDurable,
  audience: Audience,
): GreetingView | Record<string, unknown> {
  const { on, now, waiting, more, greeted, raid, entrances } = durable;
  switch (audience) {
    case "viewer":
      return { on };
    case "overlay":
      return { on, card: now?.card ?? null, looks: settings.looks };
    case "operator":
      return {
        on,
        card: now?.card ?? null,
        untilMs: now?.untilMs ?? 0,
        waiting: waiting.length + (more === null ? 0 : 1),
        next: waiting.slice(0, 6).map((c) => ({ name: c.name, line: c.line, count: c.count })),
        more: more?.count ?? 0,
        greeted: greeted.size,
        raid: raid === null ? null : { name: raid.name, untilMs: raid.untilMs, count: raid.count },
        entrances: entrances.map(({ name, line, picture, sound, role, by }) => ({ name, line, picture, sound, role, by })),
      };
  }
}
