import { does, takes, type Routes } from "../../../server/web/route-kit";
import { dressSchema, fontProblem } from "../../../core/dress/dress";
import { ok, refused } from "../../../core/kernel/refusal";
import { cut, wellFormed } from "../../../core/kernel/text";
import { placeSchema } from "../../../core/wire/messages";
import { newToken } from "../../../server/secrets";
import { boxedCss } from "../../../server/web/css";
import { placeOf } from "../../../server/web/games";
import { linkToken, replaceLink, revokeLink } from "../../../server/web/overlays";
import { services } from "../../../server/web/services";
import { createHash } from "node:crypto";
import { z } from "zod";

const mostFontBytes = 2_200_000;

/** One game on the picture, from the booth: hidden or shown, or in front of all others; on air at once. */
const gameBody = z.object({ game: z.string().max(26), hidden: z.boolean().optional(), front: z.literal(true).optional() });

const layoutBody = z.object({
  places: z.array(z.object({ game: z.string().max(26), place: placeSchema })).max(60),
  /** On air now, whether or not the overlay keeps a draft. */
  onAir: z.boolean(),
});

const side = z.int("A whole number of pixels.").min(16, "At least 16 pixels.").max(7_680, "At most 7,680 pixels.");
const changeBody = z.union([
  z.object({ width: side, height: side }),
  z.object({ name: z.string().trim().min(1, "The overlay’s name is missing.").max(80, "A name has at most 80 characters.") }),
]);

const setUpBody = z.object({
  name: z.string().trim().min(1, "The overlay’s name is missing.").max(80).optional(),
  note: z.string().max(120).optional(),
  atOnce: z.boolean().optional(),
  shows: z.boolean().optional(),
  sounds: z.boolean().optional(),
  css: z.string().max(20_000, "The style sheet is longer than 20,000 letters.").optional(),
  backdrop: z.enum(["studio", "grid", "dark", "light"]).optional(),
  dress: dressSchema.optional(),
});

const newOverlayBody = z.object({ name: z.string().trim().min(1, "The overlay’s name is missing.").max(80), width: side, height: side });

export const overlaysRoutes: Routes = {
  /** A WOFF2 file as a form: kept, and worn by the overlay from now on. */
  "POST /overlays/:id/font": takes("overlay.edit", async ({ session, params, request }) => {
    // Its size is checked before it is read.
    if (Number(request.headers.get("content-length") ?? Infinity) > mostFontBytes) return refused("font/too-large");
    const file = (await request.formData().catch(() => null))?.get("file");
    if (!(file instanceof Blob)) return refused("font/none");
    const bytes = Buffer.from(await file.arrayBuffer());
    const problem = fontProblem(bytes);
    if (problem !== null) return refused(problem);
    const { store, engine, clock } = services();
    const { channelId, operatorId } = session;
    const overlay = params["id"] ?? "";
    const layout = await store.overlays.layout(channelId, overlay);
    if (layout === null) return refused("overlay/unknown");
    const sha = createHash("sha256").update(bytes).digest("hex");
    await store.overlays.keepFont({ sha, bytes }, clock.now());
    const font = { url: `/props/${sha}`, name: cut(wellFormed(file instanceof File ? file.name : "font").replace(/\.woff2$/i, ""), 80) };
    await store.overlays.setUp(channelId, overlay, { dress: { ...layout.dress, font } });
    await engine.reload(channelId);
    await store.log.audit(channelId, operatorId, "overlay.edit", { overlay, font: font.name }, clock.now());
    return ok(font);
  }),
  "POST /overlays/:id/game": does("overlay.arrange", gameBody, async ({ session, params, body: { game, hidden, front }, audit }) => {
    const { store, engine } = services();
    const overlay = params["id"] ?? "";
    const layout = await store.overlays.layout(session.channelId, overlay);
    const own = layout?.places.find((p) => p.game === game);
    if (layout === null || own === undefined) return refused("overlay/unknown");
    const changed = { game, place: { ...own.place, hidden: hidden ?? own.place.hidden } };
    const others = layout.places.filter((p) => p !== own);
    const places = front === true ? [...others, changed] : layout.places.map((p) => (p === own ? changed : p));
    // A draft that is being arranged stays as it is: only what is on air changes here.
    if (!(await store.overlays.placeOnAir(session.channelId, overlay, places))) return refused("overlay/unknown");
    await engine.reload(session.channelId);
    await audit({ overlay, game, hidden, front });
    return ok(null);
  }),
  "PUT /overlays/:id/layout": does("overlay.arrange", layoutBody, async ({ session, params, body: { places, onAir }, audit }) => {
    const { store, engine } = services();
    const overlay = params["id"] ?? "";
    if (!(await store.overlays.saveLayout(session.channelId, overlay, places, onAir))) return refused("overlay/unknown");
    if (onAir) {
      await engine.reload(session.channelId);
      await audit({ overlay, places: places.length });
    }
    return ok(null);
  }),
  "POST /overlays/:id/link": does(
    "overlay.link",
    z.object({ do: z.enum(["copy", "replace", "revoke"]) }),
    async ({ session, params, body, audit }) => {
      const web = services();
      const overlay = params["id"] ?? "";
      await audit({ overlay, do: body.do });
      switch (body.do) {
        case "copy":
          return linkToken(web, session.channelId, overlay);
        case "replace":
          return replaceLink(web, session.channelId, overlay);
        case "revoke":
          return revokeLink(web, session.channelId, overlay);
      }
    },
  ),
  "POST /overlays/:id/place": does(
    "overlay.edit",
    z.object({ game: z.string().max(26), on: z.boolean() }),
    async ({ session, params, body: { game, on }, audit }) => {
      const { store, engine } = services();
      const kind = (await store.games.draft(session.channelId, game))?.kind ?? "";
      if (!(await store.overlays.place(session.channelId, params["id"] ?? "", game, on ? placeOf(kind) : null)))
        return refused("overlay/unknown");
      await engine.reload(session.channelId);
      await audit({ overlay: params["id"], game, on });
      return ok(null);
    },
  ),
  "POST /overlays/:id/restore": does("overlay.edit", z.object({}), async ({ session, params, audit }) => {
    const { store, engine } = services();
    const id = params["id"] ?? "";
    if (!(await store.overlays.setRemoved(session.channelId, id, null))) return refused("overlay/unknown");
    await engine.reload(session.channelId);
    await audit({ overlay: id, removed: false });
    return ok(null);
  }),
  "PATCH /overlays/:id": does("overlay.edit", changeBody, async ({ session, params, body: asked, audit }) => {
    const { store, engine } = services();
    const id = params["id"] ?? "";
    const done =
      "name" in asked
        ? await store.overlays.rename(session.channelId, id, asked.name)
        : await store.overlays.resize(session.channelId, id, asked.width, asked.height);
    if (!done) return refused("overlay/unknown");
    if ("name" in asked) await engine.reload(session.channelId);
    await audit({ overlay: id, ...asked });
    return ok(null);
  }),
  /** Its link stops at once; it can be brought back, link and all. */
  "DELETE /overlays/:id": does("overlay.edit", z.object({}), async ({ session, params, audit }) => {
    const { store, engine, clock } = services();
    const id = params["id"] ?? "";
    if (!(await store.overlays.setRemoved(session.channelId, id, clock.now()))) return refused("overlay/unknown");
    await engine.reload(session.channelId);
    await audit({ overlay: id, removed: true });
    return ok(null);
  }),
  "PATCH /overlays/:id/set-up": does("overlay.edit", setUpBody, async ({ session, params, body: given, audit }) => {
    const { store, engine } = services();
    const part = Object.fromEntries(Object.entries(given).filter(([, v]) => v !== undefined));
    if (typeof part["css"] === "string") {
      const checked = boxedCss(part["css"]);
      if (!checked.ok) return checked;
    }
    if (!(await store.overlays.setUp(session.channelId, params["id"] ?? "", part))) return refused("overlay/unknown");
    await engine.reload(session.channelId);
    await audit({ overlay: params["id"], changed: Object.keys(part) });
    return ok(null);
  }),
  "POST /overlays": does("overlay.edit", newOverlayBody, async ({ session, body: { name, width, height }, audit }) => {
    const { store, clock, engine } = services();
    const id = newToken();
    await store.overlays.create(session.channelId, { id, name, width, height, nowMs: clock.now() });
    await engine.reload(session.channelId);
    await audit({ overlay: id, name });
    return ok({ id });
  }),
};
