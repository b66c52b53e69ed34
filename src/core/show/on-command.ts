import { publicName } from "../signals/names";
import { fold } from "../kernel/fold";
import { refusal } from "../kernel/refusal";
import { type CommandSignal } from "../signals/signal";
import { type ShowCommand } from "./commands";
import { type PlanItem } from "./plan";
import { mostMuted, mostTemplates, mostWithoutFace } from "./settings";
import { type At, type Outcome, still, no, did, isRunning, timesStarted, isOpen, begin, finish, startItem } from "./outcome";

export function onCommand(at: At, signal: CommandSignal): Outcome {
  const { by } = signal;
  // The engine has read it by the schemas in commands.ts.
  const command = signal.command as ShowCommand;
  const { durable } = at;
  const itemOf = (id: string): PlanItem | undefined => durable.plan.items.find((i) => i.id === id);
  switch (command.do) {
    case "show":
      return command.what === "end"
        ? finish(at, signal, by, "hand")
        : begin(at, signal, command.what === "on-air" ? "on" : "rehearsing", by, "hand");
    case "plan": {
      if (command.revision !== durable.plan.revision) return no(at, refusal("show/plan-changed", { by: durable.plan.by }));
      const there = new Set(command.items.map((i) => i.id));
      const plan = { revision: durable.plan.revision + 1, by, items: [...command.items] };
      // What was moved may be due at another time now, so it is asked for anew.
      const asks = durable.asks.filter(
        (a) => a.item === "" || (there.has(a.item) && itemOf(a.item)?.atMin === command.items.find((i) => i.id === a.item)?.atMin),
      );
      return { ...still(at, [did("show/planned", by)]), durable: { ...durable, plan, asks } };
    }
    case "plan-fire": {
      const item = itemOf(command.item);
      if (item === undefined) return no(at, refusal("show/no-item"));
      if (!isRunning(durable)) return no(at, refusal("show/off"), item.title);
      if (timesStarted(durable, item.id) !== command.times) return no(at, refusal("show/started-already"), item.title);
      return startItem(at, item, signal.atMs, publicName(signal), false);
    }
    case "plan-move": {
      const item = itemOf(command.item);
      if (item === undefined) return no(at, refusal("show/no-item"));
      const items = durable.plan.items.map((i) => (i === item ? { ...i, atMin: command.atMin } : i));
      const plan = { revision: durable.plan.revision + 1, by, items };
      // At another time it is asked for anew.
      const asks = durable.asks.filter((a) => a.item !== item.id);
      return { ...still(at, [did("show/planned", by)]), durable: { ...durable, plan, asks } };
    }
    case "plan-skip": {
      const item = itemOf(command.item);
      if (item === undefined) return no(at, refusal("show/no-item"));
      if (!isRunning(durable)) return no(at, refusal("show/off"), item.title);
      if (!isOpen(durable, item.id)) return no(at, refusal("show/started-already"), item.title);
      const asks = durable.asks.filter((a) => a.item !== item.id);
      return { ...still(at, [did("show/skipped", item.title)]), durable: { ...durable, skipped: [...durable.skipped, item.id], asks } };
    }
    case "plan-back": {
      const item = itemOf(command.item);
      if (item === undefined || !durable.skipped.includes(item.id)) return no(at, refusal("show/no-item"));
      return {
        ...still(at, [did("show/back", item.title)]),
        durable: { ...durable, skipped: durable.skipped.filter((s) => s !== item.id) },
      };
    }
    case "template":
      return onTemplate(at, command, by, signal.seq);
    case "mute": {
      const others = durable.muted.filter((m) => m.id !== command.id);
      if (command.on && others.length >= mostMuted) return no(at, refusal("show/too-many-muted", { most: mostMuted }));
      const muted = command.on ? [...others, { id: command.id, name: command.name, by, atMs: signal.atMs }] : others;
      return { ...still(at, [did(command.on ? "show/muted" : "show/unmuted", command.name)]), durable: { ...durable, muted } };
    }
    case "face":
    case "my-face": {
      const own = command.do === "my-face";
      const who = own ? signal.viewer : { id: command.id, name: command.name };
      if (who === null) return no(at, refusal("show/nobody"));
      const before = durable.noFaces.list.find((f) => f.id === who.id);
      const on = command.do === "my-face" ? command.be === "shown" : command.on;
      if (on === (before === undefined)) return no(at, refusal(on ? "show/face-shown-already" : "show/face-hidden-already"));
      // What an operator has forbidden, its owner can't allow.
      if (own && before?.own === false) return no(at, refusal("show/face-forbidden"));
      const others = durable.noFaces.list.filter((f) => f.id !== who.id);
      if (!on && others.length >= mostWithoutFace) return no(at, refusal("show/too-many-faces", { most: mostWithoutFace }));
      const list = on ? others : [...others, { id: who.id, name: who.name, own, by: own ? who.name : by, atMs: signal.atMs }];
      const noFaces = { mark: durable.noFaces.mark + 1, list };
      return { ...still(at, [did(on ? "show/face-shown" : "show/face-hidden", who.name)]), durable: { ...durable, noFaces } };
    }
    case "decide": {
      const ask = durable.asks.find((a) => a.id === command.ask);
      if (ask === undefined) return no(at, refusal("show/decided-already"));
      const without: At = { ...at, durable: { ...durable, asks: durable.asks.filter((a) => a.id !== ask.id) } };
      if (ask.kind === "live")
        return command.yes ? begin(without, signal, "on", by, "platform") : { ...still(without), durable: without.durable };
      if (ask.kind === "ended")
        return command.yes ? finish(without, signal, by, "platform") : { ...still(without), durable: without.durable };
      const item = itemOf(ask.item);
      if (item === undefined) return { ...still(without), durable: without.durable };
      if (command.yes) return startItem(without, item, signal.atMs, publicName(signal), false);
      return {
        ...still(without, [did("show/skipped", item.title)]),
        durable: { ...without.durable, skipped: [...without.durable.skipped, item.id] },
      };
    }
  }
}

function onTemplate(at: At, command: Extract<ShowCommand, { do: "template" }>, by: string, seq: number): Outcome {
  const { durable } = at;
  const there = durable.templates.find((t) => t.id === command.id);
  switch (command.what) {
    case "save": {
      const same = durable.templates.find((t) => fold(t.name) === fold(command.name));
      const others = durable.templates.filter((t) => t !== same);
      if (command.name.trim() === "") return no(at, refusal("show/template-name"));
      if (others.length >= mostTemplates) return no(at, refusal("show/too-many-templates", { most: mostTemplates }));
      const template = { id: same?.id ?? `t${seq}`, name: command.name.trim(), items: durable.plan.items };
      return { ...still(at, [did("show/template-saved", template.name)]), durable: { ...durable, templates: [...others, template] } };
    }
    case "use": {
      if (there === undefined) return no(at, refusal("show/no-template"));
      const plan = { revision: durable.plan.revision + 1, by, items: there.items };
      return { ...still(at, [did("show/template-used", there.name)]), durable: { ...durable, plan, done: [], skipped: [], asks: [] } };
    }
    case "remove":
      if (there === undefined) return no(at, refusal("show/no-template"));
      return {
        ...still(at, [did("show/template-removed", there.name)]),
        durable: { ...durable, templates: durable.templates.filter((t) => t !== there) },
      };
  }
}
