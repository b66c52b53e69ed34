import { houseOf } from "../../../server/web/accounts";
import { does, fromOurs, reads, type Routes, readBody } from "../../../server/web/route-kit";
import { ok, refused } from "../../../core/kernel/refusal";
import { markOf } from "../../../core/show/timeline";
import { firstProblem } from "../../../core/words/problem";
import { addressOf, keepCookie } from "../../../server/web/cookie";
import { replaceTrigger, revokeTrigger, triggerToken } from "../../../server/web/events";
import { remoteCookie } from "../../../server/web/http";
import { offerPairing, pair } from "../../../server/web/remotes";
import { services } from "../../../server/web/services";
import { z } from "zod";

const pairBody = z.object({
  code: z.string().trim().min(1, "Type the code that the booth shows.").max(20),
  label: z.string().trim().min(1).max(30),
});

/** An operator speaks in chat, as the channel's own voice. One line, as long as chat lets it be. */
const lineBody = z.object({
  text: z
    .string()
    .trim()
    .min(1, "There is nothing to say yet.")
    .max(400, "A chat line holds at most 400 characters.")
    .regex(/^[^\p{Cc}]*$/u, "A chat line is one line."),
});

const spanQuery = z.object({ from: z.coerce.number().int().min(0), to: z.coerce.number().int().min(0) });
const mostMarks = 3_000;

export const boothRoutes: Routes = {
  "POST /cues/:id/fire": does(
    "cue.fire",
    z.object({ id: z.string().min(8).max(80), via: z.enum(["key", "click"]) }),
    async ({ session, stage, params, body, audit }) => {
      const done = await services().engine.cue(stage, params["id"] ?? "", session.login, body.id, body.via, houseOf(session));
      if (done.ok) await audit({ cue: params["id"] });
      return done;
    },
  ),
  "POST /cues/:id/link": does(
    "cue.link",
    z.object({ do: z.enum(["copy", "replace", "revoke"]) }),
    async ({ session, params, body, audit }) => {
      const web = services();
      const cue = params["id"] ?? "";
      await audit({ cue, do: body.do });
      switch (body.do) {
        case "copy":
          return triggerToken(web, session.channelId, cue);
        case "replace":
          return replaceTrigger(web, session.channelId, cue);
        case "revoke":
          return revokeTrigger(web, session.channelId, cue);
      }
    },
  ),
  /** What was held under hush: played now, or dropped; one, or with an empty id all. */
  "POST /held": does(
    "held.decide",
    z.object({ do: z.enum(["play", "drop"]), alert: z.string().max(120) }),
    async ({ stage, body, audit }) => {
      const done = await services().engine.held(stage, body.do, body.alert);
      if (done.ok) await audit({ do: body.do });
      return done;
    },
  ),
  "POST /queues": does(
    "queue.act",
    z.object({ do: z.enum(["skip", "clear", "pause", "go-on"]), queue: z.string().max(26) }),
    async ({ stage, body, audit }) => {
      await audit({ queue: body.queue, do: body.do });
      return services().engine.queue(stage, body.do, body.queue);
    },
  ),
  /** A phone hands in the one-time code and gets its own session. */
  "POST /remote/pair": fromOurs(async ({ request }) => {
    const given = pairBody.safeParse(await readBody(request));
    if (!given.success) return refused("input/invalid", { why: firstProblem(given.error) });
    return keepCookie(remoteCookie, await pair(services(), given.data.code, given.data.label, await addressOf()));
  }),
  /** A phone is no longer paired, at once. */
  "DELETE /remotes/:id": does("remote.pair", z.object({}), async ({ session, params, audit }) => {
    const { store, engine } = services();
    if (!(await store.accounts.revokeRemote(session.channelId, params["id"] ?? ""))) return refused("remote/unknown");
    await engine.recheck();
    await audit({ remote: params["id"] });
    return ok(null);
  }),
  /** The phones that are paired. */
  "GET /remotes": reads("signed-in", async ({ session }) => {
    const { store, clock } = services();
    return ok({ remotes: await store.accounts.remotes(session.channelId, clock.now()) });
  }),
  /** A new one-time code with which a phone may be paired. */
  "POST /remotes": does("remote.pair", z.object({}), async ({ session, audit }) => {
    await audit({});
    return offerPairing(services(), session);
  }),
  "POST /say": does("chat.say", lineBody, async ({ session, stage, body: { text }, audit }) => {
    const done = await services().engine.say(stage, text, session.login);
    if (done.ok) await audit({ characters: text.length });
    return done;
  }),
  /** What happened between two times, as marks for the tape, made from the log. */
  "GET /show/tape": reads("signed-in", async ({ session, query }) => {
    const span = spanQuery.safeParse(Object.fromEntries(query));
    if (!span.success) return refused("input/invalid", { why: "The tape is asked for from one time to another." });
    const rows = await services().store.shows.tape(session.channelId, span.data.from, span.data.to, mostMarks);
    return ok({ marks: rows.map((row) => markOf(row)).filter((m) => m !== null) });
  }),
  /** One open page plays a soft tone, and tells whether it was heard there. */
  "POST /voice/test": does("voice.choose", z.object({ page: z.string().max(60) }), async ({ session, body, audit }) => {
    await audit({ page: body.page, tone: "" });
    const came = await services().engine.tone(session.channelId, body.page);
    return came.ok ? ok({ came: came.value }) : came;
  }),
  /** Which open page makes the sound. */
  "POST /voice": does("voice.choose", z.object({ page: z.string().max(60) }), async ({ session, body, audit }) => {
    await audit({ page: body.page });
    return services().engine.voice(session.channelId, body.page);
  }),
};
