import { does, reads, type Routes } from "../../../server/web/route-kit";
import { ok, refused } from "../../../core/kernel/refusal";
import { chatSettingsSchema, studioConnectionSchema } from "../../../server/composition/web";
import { saveChat } from "../../../server/web/chat";
import { endOldSecret, eventSecret, rotateEventSecret } from "../../../server/web/events";
import { usePractice } from "../../../server/web/practice";
import { services } from "../../../server/web/services";
import { addStarter } from "../../../server/web/starter";
import { saveStudio } from "../../../server/web/studio";
import { z } from "zod";

const chatBody = z.object({ enabled: z.boolean(), settings: chatSettingsSchema, password: z.string().max(400).nullable() });

const days = (what: string) => z.int().min(7, `${what}: at least 7 days.`).max(3_650, `${what}: at most ten years.`);

const studioBody = z.object({ enabled: z.boolean(), settings: studioConnectionSchema, secret: z.string().max(400).nullable() });

export const connectionsRoutes: Routes = {
  "PATCH /channel": does(
    "channel.rename",
    z.object({ name: z.string().trim().min(1, "The channel’s name is missing.").max(80, "The channel’s name has at most 80 characters.") }),
    async ({ session, body, audit }) => {
      const { store, engine } = services();
      await store.accounts.renameChannel(session.channelId, body.name);
      await engine.reload(session.channelId);
      await audit({ name: body.name, before: session.channelName });
      return ok(null);
    },
  ),
  "PUT /chat": does("chat.connect", chatBody, async ({ session, body: { enabled, settings, password }, audit }) => {
    await audit({ host: settings.host, port: settings.port, enabled });
    return saveChat(services(), session.channelId, enabled, settings, password);
  }),
  /** One month of the log as lines of JSON, in order; made while it is read, whatever its size. */
  "GET /data/:month": reads("data.keep", async ({ session, params }) => {
    const month = params["month"] ?? "";
    const { store, clock } = services();
    const known = /^\d{4}-(0[1-9]|1[0-2])$/.test(month) && (await store.data.months(session.channelId)).some((m) => m.month === month);
    if (!known) return refused("data/no-month");
    await store.log.audit(session.channelId, session.operatorId, "data.export", { month }, clock.now());
    const rows = store.data.month(session.channelId, month);
    const text = new TextEncoder();
    const stream = new ReadableStream<Uint8Array>({
      pull: async (to) => {
        try {
          const next = await rows.next();
          if (next.done === true) to.close();
          else to.enqueue(text.encode(next.value.map((row) => `${JSON.stringify(row)}\n`).join("")));
        } catch (error) {
          // A file that breaks off is seen to be broken; one that just ends is not.
          to.error(error);
        }
      },
      cancel: () => void rows.return(undefined),
    });
    return new Response(stream, {
      headers: {
        "content-type": "application/x-ndjson; charset=utf-8",
        "content-disposition": `attachment; filename="log-${month}.ndjson"`,
        "cache-control": "no-store",
      },
    });
  }),
  /** How long things are kept. */
  "PUT /data": does(
    "data.keep",
    z.object({ logDays: days("The log"), auditDays: days("Who did what"), hitDays: days("Single hits") }),
    async ({ body, audit }) => {
      await services().store.data.setRetention(body);
      await audit(body);
      return ok(null);
    },
  ),
  "POST /events": does("events.connect", z.object({ do: z.enum(["copy", "rotate", "end-old"]) }), async ({ session, body, audit }) => {
    const web = services();
    await audit({ do: body.do });
    switch (body.do) {
      case "copy":
        return eventSecret(web, session.channelId);
      case "rotate":
        return rotateEventSecret(web, session.channelId);
      case "end-old":
        return endOldSecret(web, session.channelId);
    }
  }),
  /** What was refused lately, with the reason. */
  "GET /events": reads("signed-in", async ({ session }) => {
    const list = await services().engine.refusedEvents(session.channelId);
    return list.ok ? ok({ refused: list.value }) : list;
  }),
  /** Connects chat and events to the practice rig. */
  "POST /practice": does("chat.connect", z.object({}), async ({ session, audit }) => {
    await audit({ practice: true });
    return usePractice(services(), session.channelId);
  }),
  /** The pictures and sounds that Izzam comes with, for a channel that has none. */
  "POST /starter": does("prop.edit", z.object({ what: z.enum(["emotes", "props"]) }), async ({ session, body, audit }) => {
    await audit({ starter: body.what });
    return addStarter(services(), session.channelId, body.what);
  }),
  "PUT /studio": does("chat.connect", studioBody, async ({ session, body: at, audit }) => {
    await audit({ studio: at.settings.address, enabled: at.enabled });
    return saveStudio(services(), session.channelId, at);
  }),
};
