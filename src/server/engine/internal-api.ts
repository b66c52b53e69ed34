import type { IncomingMessage, ServerResponse } from "node:http";
import { z } from "zod";
import { channelId } from "../../core/kernel/ids";
import { ok, refused } from "../../core/kernel/refusal";
import { parseJson } from "../../core/kernel/text";
import { tasteOf } from "../../core/speech/catalogue";
import { voiceSchema } from "../../core/speech/voice";
import { givenSchema, paceSchema, sourceSchema, steerSchema } from "../../core/rehearsal/plan";
import { commandSchema } from "../../core/signals/signal";
import { readBody } from "./body";
import type { Engine } from "./engine";

const id = z.string().min(1).max(26).transform(channelId);
/** Who acts at the desk, as viewers may read it. */
const houseSchema = z.object({ name: z.string().max(40), role: z.enum(["owner", "moderator"]) });
const bodies = {
  reload: z.object({ channel: id }),
  refresh: z.object({ channel: id }),
  media: z.object({ channel: id }),
  forget: z.object({ channel: id, viewer: z.string().max(64) }),
  leave: z.object({ channel: id, token: z.string().min(40).max(64) }),
  renew: z.object({ channel: id, token: z.string().min(40).max(64), after: z.string().min(40).max(64) }),
  command: z.object({
    channel: id,
    game: z.string().max(26),
    by: z.string().max(60),
    id: z.string().min(8).max(80),
    command: commandSchema,
    house: houseSchema.optional(),
  }),
  cue: z.object({
    channel: id,
    cue: z.string().max(26),
    by: z.string().max(60),
    id: z.string().min(8).max(80),
    via: z.enum(["key", "click"]),
    house: houseSchema.optional(),
  }),
  queue: z.object({ channel: id, do: z.enum(["skip", "clear", "pause", "go-on"]), queue: z.string().max(26) }),
  held: z.object({ channel: id, do: z.enum(["play", "drop"]), alert: z.string().max(120) }),
  say: z.object({ channel: id, text: z.string().min(1).max(400), by: z.string().max(60) }),
  voice: z.object({ channel: id, page: z.string().max(60) }),
  hear: z.object({ channel: id, voice: voiceSchema }),
  shop: z.object({ channel: id, token: z.string().max(64) }),
  code: z.object({ channel: id, token: z.string().min(40).max(64) }),
  purchase: z.object({
    channel: id,
    token: z.string().min(40).max(64),
    id: z.string().min(8).max(40),
    reward: z.string().max(26),
    text: z.string().max(300),
    price: z.number(),
  }),
  act: z.object({
    channel: id,
    token: z.string().min(40).max(64),
    id: z.string().min(8).max(40),
    game: z.string().max(26),
    command: commandSchema,
  }),
  rehearse: z.object({
    channel: id,
    by: z.string().max(80),
    source: sourceSchema,
    pace: paceSchema,
    chat: z.boolean(),
    overlays: z.boolean(),
  }),
  rehearsal: z.object({
    channel: id,
    id: z.string().max(26),
    ask: z.discriminatedUnion("do", [
      z.object({ do: z.literal("known") }),
      z.object({ do: z.literal("report") }),
      z.object({ do: z.literal("marks") }),
      z.object({ do: z.literal("fight"), game: z.string().max(40), sinceMs: z.number() }),
      z.object({ do: z.literal("give"), given: givenSchema }),
      z.object({ do: z.literal("steer"), steer: steerSchema }),
    ]),
  }),
  refused: z.object({ channel: id }),
  changed: z.object({ channel: id, what: z.string().max(40), id: z.string().max(40), revision: z.number(), by: z.string().max(60) }),
};

/** What the web process asks of the engine, over loopback, with the key both were given at start. */
export async function internalApi(engine: Engine, name: string, req: IncomingMessage, res: ServerResponse): Promise<void> {
  const text = ((await readBody(req)) ?? "").toString();
  const body: unknown = text === "" ? {} : parseJson(text);
  const answer = (value: unknown): void => void res.writeHead(200, { "content-type": "application/json" }).end(JSON.stringify(value));
  switch (name) {
    case "ping":
      return answer({ ok: true });
    case "reload": {
      await engine.reload(bodies.reload.parse(body).channel);
      return answer({ ok: true });
    }
    case "media": {
      engine.runners.get(bodies.media.parse(body).channel)?.outside.films.look();
      return answer({ ok: true });
    }
    case "refresh": {
      await engine.runners.get(bodies.refresh.parse(body).channel)?.refresh();
      return answer({ ok: true });
    }
    case "forget": {
      const { channel, viewer } = bodies.forget.parse(body);
      await engine.runners.get(channel)?.forget(viewer);
      return answer({ ok: true, value: null });
    }
    case "leave": {
      await engine.viewerDoor.leaves(bodies.leave.parse(body).token);
      return answer({ ok: true, value: null });
    }
    case "renew": {
      const { channel, token, after } = bodies.renew.parse(body);
      return answer(await engine.viewerDoor.renews(channel, token, after));
    }
    case "command": {
      const { channel, game, by, id: signalId, command, house } = bodies.command.parse(body);
      const runner = engine.runnerOf(channel);
      return answer(runner === undefined ? engine.absent(channel) : await runner.requests.command(game, by, signalId, command, house));
    }
    case "cue": {
      const { channel, cue, by, id: signalId, via, house } = bodies.cue.parse(body);
      const runner = engine.runnerOf(channel);
      return answer(runner === undefined ? engine.absent(channel) : await runner.requests.cue(cue, by, signalId, via, house));
    }
    case "queue": {
      const { channel, do: what, queue } = bodies.queue.parse(body);
      const runner = engine.runnerOf(channel);
      return answer(runner === undefined ? engine.absent(channel) : runner.actOnQueue(what, queue));
    }
    case "held": {
      const { channel, do: what, alert } = bodies.held.parse(body);
      const runner = engine.runnerOf(channel);
      return answer(runner === undefined ? engine.absent(channel) : runner.held(what, alert));
    }
    case "say": {
      const { channel, text, by } = bodies.say.parse(body);
      return answer(engine.speak(channel, text, by));
    }
    case "hear": {
      const { voice } = bodies.hear.parse(body);
      const made = await engine.speeches.of(tasteOf(voice), voice);
      return answer(made === null ? refused("speech/failed") : ok(made));
    }
    case "voice": {
      const { channel, page } = bodies.voice.parse(body);
      engine.overlays.sound.choose(channel, page);
      return answer({ ok: true, value: null });
    }
    case "tone": {
      const { channel, page } = bodies.voice.parse(body);
      return answer(await engine.overlays.sound.tone(channel, page));
    }
    case "shop": {
      const { channel, token } = bodies.shop.parse(body);
      return answer(await engine.viewerDoor.shop(channel, token));
    }
    case "code": {
      const { channel, token } = bodies.code.parse(body);
      if (!engine.runners.has(channel)) return answer(engine.absent(channel));
      const code = engine.viewers.codes.of(channel, token);
      return answer(code === null ? refused("viewer/codes-out") : ok(code));
    }
    case "purchase": {
      const { channel, token, ...request } = bodies.purchase.parse(body);
      return answer(await engine.viewerDoor.ask(channel, token, (requests, viewer) => requests.purchase(viewer, request)));
    }
    case "act": {
      const { channel, token, ...request } = bodies.act.parse(body);
      return answer(await engine.viewerDoor.ask(channel, token, (requests, viewer) => requests.act(viewer, request)));
    }
    case "rehearse": {
      const { channel, ...asked } = bodies.rehearse.parse(body);
      return answer(await engine.rehearsals.begin(channel, asked));
    }
    case "rehearsal": {
      const { channel, id: rehearsal, ask } = bodies.rehearsal.parse(body);
      const { rehearsals } = engine;
      if (ask.do === "known") return answer(rehearsals.of(channel, rehearsal) === null ? refused("rehearsal/unknown") : ok(null));
      if (ask.do === "report") return answer(rehearsals.report(channel, rehearsal));
      if (ask.do === "marks" || ask.do === "fight") {
        const found = rehearsals.of(channel, rehearsal);
        if (found === null) return answer(refused("rehearsal/unknown"));
        const { marks, fights } = found.observer;
        return answer(ok(ask.do === "marks" ? { marks } : fights.of(ask.game, ask.sinceMs, found.standing().nowMs)));
      }
      if (ask.do === "give") return answer(await rehearsals.one(channel, rehearsal, ask.given));
      return answer(rehearsals.steer(channel, rehearsal, ask.steer));
    }
    case "refused":
      return answer({ ok: true, value: engine.intake.refused(bodies.refused.parse(body).channel) });
    case "recheck":
      await engine.recheck();
      return answer({ ok: true });
    case "changed": {
      const { channel, ...what } = bodies.changed.parse(body);
      engine.tellChanged(channel, what);
      return answer({ ok: true });
    }
    default:
      res.writeHead(404).end();
  }
}
