import { mostShowBytes } from "../../../core/props/sizes";
import { does, open, reads, takes, type Routes } from "../../../server/web/route-kit";
import { ok, refusal, refused } from "../../../core/kernel/refusal";
import { addressOf } from "../../../server/web/cookie";
import { actOnOutsideShow, addOutsideShow, outsideLines, outsideLinesSchema } from "../../../server/web/outside-shows";
import { asCsv, pastRounds, roundOut, roundsAsCsv } from "../../../server/web/past-rounds";
import { factsOf, published } from "../../../server/web/published";
import { actOnShow, markersOut, outSchema, reviewActSchema, showMoments } from "../../../server/web/review";
import { may } from "../../../server/web/rights";
import { proofIn, roundOf } from "../../../server/web/rounds";
import { services } from "../../../server/web/services";
import { withUpload } from "../../../server/web/upload";
import { shareShow, unshareShow } from "../../../server/web/share";
import { linesSchema, showLines } from "../../../server/web/show-lines";
import { recordIn } from "../../../server/web/show-names";
import { showBundle, showTable, tableSchema } from "../../../server/web/show-out";
import { showFigures } from "../../../server/web/trends";
import { z } from "zod";

const outsideAct = z.discriminatedUnion("do", [
  z.object({ do: z.enum(["remove", "restore"]) }),
  z.object({ do: z.literal("rename"), name: z.string().trim().min(1, "A show needs a name.").max(120) }),
]);

const roundsQuery = z.object({ as: z.enum(["csv", "json"]).default("csv"), id: z.coerce.number().int().min(1).optional() });
const file = (text: string, name: string, type: string): Response =>
  new Response(text, { headers: { "content-type": type, "content-disposition": `attachment; filename="${name}"` } });

export const reviewRoutes: Routes = {
  /** A page of what was said and happened in it. */
  "GET /review/outside/:id/lines": reads("signed-in", async ({ session, params, query }) => {
    const asked = outsideLinesSchema.safeParse(Object.fromEntries(query));
    if (!asked.success) return refused("input/invalid", { why: "These lines can’t be asked for so." });
    const found = await outsideLines(services(), session.channelId, (params["id"] ?? "").slice(0, 40), asked.data);
    return found === null ? refused("outside/unknown") : ok(found);
  }),
  "POST /review/outside/:id": does("review.edit", outsideAct, ({ session, params, body }) =>
    actOnOutsideShow(services(), session.channelId, params["id"] ?? "", body),
  ),
  /** Shows of other installations that were brought in. */
  "GET /review/outside": reads("signed-in", async ({ session }) => {
    return ok({ shows: await services().store.outsideShows.list(session.channelId) });
  }),
  /** A ZIP of a show, as a form. Its size is checked before it is read. */
  "POST /review/outside": takes("review.edit", async ({ session, request }) => {
    const missing = refusal("input/invalid", { why: "No file came with this." });
    return withUpload(request, "file", { most: mostShowBytes, tooLarge: refusal("outside/too-large"), missing }, (file) =>
      addOutsideShow(services(), session, file),
    );
  }),
  /** Rounds that are over, as CSV or JSON; with `id`, one of them with everybody who was in it. */
  "GET /review/rounds": reads("signed-in", async ({ session, query }) => {
    const given = roundsQuery.safeParse(Object.fromEntries(query));
    if (!given.success) return refused("input/invalid", { why: "There is no such list." });
    const { as, id } = given.data;
    const [csv, json] = ["text/csv; charset=utf-8", "application/json"];
    if (id === undefined)
      return as === "csv"
        ? file(await roundsAsCsv(services(), session.channelId), "rounds.csv", csv)
        : file(JSON.stringify(await pastRounds(services(), session.channelId, "", 50_000), null, 2), "rounds.json", json);
    const out = await roundOut(services(), session.channelId, id);
    if (out === null) return refused("round/unknown");
    return as === "csv" ? file(asCsv(out.entries), `round-${id}.csv`, csv) : file(JSON.stringify(out, null, 2), `round-${id}.json`, json);
  }),
  /** What was said and what it led to, between two times of a past show. */
  "GET /review/shows/:id/lines": reads("signed-in", async ({ session, query }) => {
    const asked = linesSchema.safeParse(Object.fromEntries(query));
    if (!asked.success) return refused("input/invalid", { why: "Lines are asked for from one time to another." });
    return ok(await showLines(services(), session.channelId, asked.data));
  }),
  /** Moments of a past show: found, kept and dropped. Every message of it is read for them. */
  "GET /review/shows/:id/moments": reads("signed-in", async ({ session, params }) => {
    const moments = await showMoments(services(), session.channelId, recordIn(params["id"] ?? ""));
    return moments === null ? refused("review/unknown") : ok(moments);
  }),
  /** Moments of a past show as a file for editors. */
  "GET /review/shows/:id/out": reads("signed-in", async ({ session, params, query }) => {
    const asked = outSchema.safeParse(Object.fromEntries(query));
    if (!asked.success) return refused("input/invalid", { why: "There is no such file." });
    const file = await markersOut(services(), session.channelId, recordIn(params["id"] ?? ""), asked.data);
    if (file === null) return refused("review/unknown");
    return new Response(file.text, {
      headers: { "content-type": file.type, "content-disposition": `attachment; filename="${file.name}"` },
    });
  }),
  /** What somebody makes of a past show: its name, its place in a recording, its moments. */
  "POST /review/shows/:id": does("review.edit", reviewActSchema, ({ session, params, body }) =>
    actOnShow(services(), session, recordIn(params["id"]), body),
  ),
  /** Makes a page to share, or takes it back. The link is told once. */
  "POST /review/shows/:id/share": does("show.share", z.object({ on: z.boolean() }), async ({ session, params, body, audit }) => {
    const id = recordIn(params["id"]);
    await audit({ show: id, on: body.on });
    return body.on ? shareShow(services(), session.channelId, id) : unshareShow(services(), session.channelId, id);
  }),
  /** One table of a past show as a file. Who bought what and who was there leaves with its owner alone. */
  "GET /review/shows/:id/table": reads("signed-in", async ({ session, params, query }) => {
    const asked = tableSchema.safeParse(Object.fromEntries(query));
    if (!asked.success) return refused("input/invalid", { why: "There is no such table." });
    const isTheirs = asked.data.what === "sales" || asked.data.what === "people";
    if (isTheirs && !may(session.role, "show.export")) return refused("access/role");
    const file = await showTable(services(), session.channelId, recordIn(params["id"] ?? ""), asked.data);
    if (file === null) return refused("review/unknown");
    return new Response(file.text, {
      headers: { "content-type": file.type, "content-disposition": `attachment; filename="${file.name}"`, "cache-control": "no-store" },
    });
  }),
  /** The whole of a past show as a ZIP, made while it is read, whatever its size. */
  "GET /review/shows/:id/whole": reads("show.export", async ({ session, params }) => {
    const { store, clock } = services();
    const id = recordIn(params["id"] ?? "");
    const bundle = await showBundle(services(), session.channelId, session.channelName, id);
    if (bundle === null) return refused("review/unknown");
    await store.log.audit(session.channelId, session.operatorId, "show.export", { show: id }, clock.now());
    const stream = new ReadableStream<Uint8Array>({
      pull: async (to) => {
        try {
          const next = await bundle.pieces.next();
          if (next.done === true) to.close();
          else to.enqueue(next.value);
        } catch (error) {
          // A file that breaks off is seen to be broken; one that just ends is not.
          to.error(error);
        }
      },
      cancel: () => void bundle.pieces.return(undefined),
    });
    return new Response(stream, {
      headers: {
        "content-type": "application/zip",
        "content-disposition": `attachment; filename="${bundle.name}"`,
        "cache-control": "no-store",
      },
    });
  }),
  /** The last shows as figures, to be compared. */
  "GET /review/trends": reads("signed-in", async ({ session }) => {
    const [shows, told] = await Promise.all([showFigures(services(), session.channelId), published(services(), session.channelId)]);
    const { points, home } = factsOf(told);
    return ok({ shows, points, home });
  }),
  /** The proof of a round as one JSON file: public, as the round was. */
  "GET /rounds/:round": open(async ({ params }) => {
    const round = await roundOf(params["round"] ?? "", await addressOf());
    if (!round.ok) return round;
    const proof = proofIn(round.value);
    if (proof === null) return refused("round/unknown");
    return new Response(JSON.stringify(proof, null, 2), {
      headers: {
        "content-type": "application/json",
        "content-disposition": `attachment; filename="${round.value.round}.json"`,
        "access-control-allow-origin": "*",
        "x-content-type-options": "nosniff",
      },
    });
  }),
};
