import type { Command } from "../../core/signals/signal";
import type { OperatorRole } from "../ports/operator-store";

/** Who may do what. Every action of the operator side is on this list and is checked against it. */
export const rights = {
  hush: ["owner", "moderator"],
  command: ["owner", "moderator"],
  "game.edit": ["owner", "moderator"],
  "game.create": ["owner", "moderator"],
  "game.publish": ["owner", "moderator"],
  "emote.edit": ["owner", "moderator"],
  "prop.edit": ["owner", "moderator"],
  "cue.fire": ["owner", "moderator"],
  "queue.act": ["owner", "moderator"],
  "lab.ask": ["owner", "moderator"],
  rehearse: ["owner", "moderator"],
  "review.edit": ["owner", "moderator"],
  "held.decide": ["owner", "moderator"],
  "chat.say": ["owner", "moderator"],
  "remote.pair": ["owner", "moderator"],
  "voice.choose": ["owner", "moderator"],
  "overlay.arrange": ["owner", "moderator"],
  "people.import": ["owner", "moderator"],
  account: ["owner", "moderator"],
  "operators.manage": ["owner"],
  "channel.rename": ["owner"],
  "data.keep": ["owner"],
  "show.export": ["owner"],
  "show.share": ["owner"],
  "people.forget": ["owner"],
  "sale.detail": ["owner"],
  "cue.link": ["owner"],
  "events.connect": ["owner"],
  "overlay.edit": ["owner"],
  "overlay.link": ["owner"],
  "chat.connect": ["owner"],
} as const satisfies Record<string, readonly OperatorRole[]>;
export type Action = keyof typeof rights;

export const may = (role: OperatorRole, action: Action): boolean => (rights[action] as readonly OperatorRole[]).includes(role);

/** What a paired phone may do: the hands of the booth, and nothing that sets anything up. */
const remote: ReadonlySet<Action> = new Set<Action>(["hush", "command", "cue.fire", "queue.act", "held.decide"]);
/** Points are corrected at a desk, by who is signed in: a phone that lies about gives nothing away. */
const notByPhone: ReadonlySet<Command["do"]> = new Set<Command["do"]>(["adjust", "take-in", "merge"]);
export const mayRemoteCommand = (command: Command["do"]): boolean => !notByPhone.has(command);
export const mayRemote = (action: Action): boolean => remote.has(action);
