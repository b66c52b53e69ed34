import { afterAll, beforeAll, describe, expect, test } from "@jest/globals";
import { NextRequest } from "next/server";
import type { WebServices } from "../../../server/composition/web";
import { invite, join, signIn } from "../../../server/web/accounts";
import { rights, may, mayRemote } from "../../../server/web/rights";
import { offerPairing, pair } from "../../../server/web/remotes";
import type { Needs } from "../../../server/web/route-kit";
import { openedWeb } from "../../../server/testing/web";
import { dispatch } from "./dispatch";
import { table } from "./table";

/** The whole API on the real database, asked as a browser would ask it; only Next.js itself is left out. */
const here = "http://localhost:4470";
let web: WebServices;
let end: () => Promise<void>;
/** Cookies of people who may come: an owner, a moderator, a paired phone, nobody. */
const who = { owner: "", moderator: "", phone: "", nobody: "" };
const shared = globalThis as unknown as Record<symbol, WebServices | undefined>;
const key = Symbol.for("izzam.web-services");

beforeAll(async () => {
  const made = await openedWeb("table_of_routes");
  ({ web, end } = made);
  shared[key] = web;
  const opened = await signIn(web, "Kiln Keeper", "a long password", "1.1.1.1", true);
  const asked = await invite(web, made.owner);
  const joined = asked.ok
    ? await join(web, { token: asked.value.token, login: "Sponge Bearer", password: "another password" }, "1.1.1.2")
    : asked;
  const code = await offerPairing(web, made.owner);
  const paired = code.ok ? await pair(web, code.value.code, "Phone", "1.1.1.3") : code;
  if (!opened.ok || !joined.ok || !paired.ok) throw new Error("nobody got in");
  who.owner = `izzam_session=${opened.value.token}`;
  who.moderator = `izzam_session=${joined.value.token}`;
  who.phone = `izzam_remote=${paired.value.token}`;
});
afterAll(async () => {
  shared[key] = undefined;
  await end();
});

type Asked = Readonly<{ cookie?: string; origin?: string | null; body?: unknown; headers?: Readonly<Record<string, string>> }>;
const ask = (at: string, { cookie = "", origin = here, body, headers = {} }: Asked = {}): Promise<Response> => {
  const [method = "", path = ""] = at.split(" ");
  const head: Record<string, string> = { host: "localhost:4470", cookie, "content-type": "application/json", ...headers };
  if (origin !== null) head["origin"] = origin;
  const text = method === "GET" || method === "HEAD" || body === undefined ? undefined : JSON.stringify(body);
  return dispatch(new NextRequest(`${here}/api${path}`, { method, headers: head, ...(text === undefined ? {} : { body: text }) }));
};
const said = async (response: Response) => (await response.json()) as { ok: boolean; words?: string; refusal?: { code: string } };
const routes = Object.entries(table).map(([at, { needs }]) => ({ at: at.replace(/:\w+/g, "saltmarsh-kiln"), needs, pattern: at }));
const isAction = (needs: Needs): needs is keyof typeof rights => Object.hasOwn(rights, needs);

describe("the table of routes", () => {
  test("has all of the operator side, and each of its actions is asked for by a route", () => {
    expect(routes.length).toBeGreaterThan(100);
    const asked = new Set(routes.map((r) => r.needs));
    // Hush is answered by the engine alone.
    expect(Object.keys(rights).filter((name) => name !== "hush" && !asked.has(name as Needs))).toEqual([]);
  });

  test.each(routes.filter((r) => isAction(r.needs) || r.needs.startsWith("signed-in")))(
    "$pattern is for nobody who is not signed in",
    async ({ at }) => {
      const response = await ask(at);
      expect([response.status, (await said(response)).refusal?.code]).toEqual([401, "access/signed-out"]);
    },
  );

  test.each(routes.filter((r) => isAction(r.needs) && !r.at.startsWith("GET")))(
    "$pattern is asked for from our own pages only",
    async ({ at }) => {
      for (const origin of [null, "https://elsewhere.example", "http://localhost:9999", "null"]) {
        const response = await ask(at, { cookie: who.owner, origin });
        expect([response.status, (await said(response)).refusal?.code]).toEqual([403, "access/foreign"]);
      }
    },
  );

  test.each(routes.filter((r) => isAction(r.needs)))("$pattern keeps to the roles of its action", async ({ at, needs }) => {
    if (!isAction(needs)) return;
    const refusal = async (cookie: string) => {
      const response = await ask(at, { cookie, body: "nothing of use" });
      return response.headers.get("content-type")?.includes("json") === true ? (await said(response)).refusal?.code : "";
    };
    if (may("moderator", needs)) expect(await refusal(who.moderator)).not.toMatch(/^access\//);
    else expect(await refusal(who.moderator)).toBe("access/role");
    if (!mayRemote(needs)) expect(await refusal(who.phone)).toBe("access/signed-out");
    else expect(await refusal(who.phone)).not.toBe("access/signed-out");
  });

  test.each(routes)("$pattern answers what makes no sense in words, and never with a defect", async ({ at, needs }) => {
    for (const body of [undefined, null, [], "text", { id: "__proto__", do: "constructor", name: "\ud800" }]) {
      const response = await ask(at, { cookie: needs === "our pages" ? "" : who.owner, body });
      expect(response.status).not.toBe(500);
      if (response.headers.get("content-type")?.includes("json") !== true) continue;
      const answer = await said(response);
      if (!answer.ok && answer.words !== undefined) expect(answer.words).toMatch(/^\S.*\S$/s);
    }
  });
});

describe("addresses", () => {
  test("an unknown one is told as unknown; a known one says what it is used with", async () => {
    for (const at of ["GET /nothing", "GET /", "POST /games/x/y/z", "GET /games/%E0%A4%A", "GET /constructor", "GET /__proto__"]) {
      const response = await ask(at, { cookie: who.owner });
      expect([at, response.status, (await said(response)).refusal?.code]).toEqual([at, 404, "address/unknown"]);
    }
    const wrong = await ask("PUT /games", { cookie: who.owner });
    expect([wrong.status, wrong.headers.get("allow")]).toEqual([405, "POST"]);
    expect((await ask("DELETE /lab", { cookie: who.owner })).headers.get("allow")).toBe("GET, POST");
  });
  test("names with anything in them arrive as they are", async () => {
    const response = await ask(`GET /games/${encodeURIComponent("a/b %🔥")}/uses`, { cookie: who.owner });
    expect(response.status).toBe(200);
  });
  test("a look ahead is answered as the look would be", async () => {
    expect((await ask("HEAD /find", { cookie: who.owner })).status).toBe(200);
    expect((await ask("HEAD /find")).status).toBe(401);
  });
});

describe("cookies", () => {
  test("signing in sets one that scripts can't read; it is secure only where the browser came by HTTPS", async () => {
    const body = { login: "Kiln Keeper", password: "a long password" };
    const plain = await ask("POST /sign-in", { body });
    expect(plain.headers.getSetCookie()).toEqual([
      expect.stringMatching(/^izzam_session=[\w-]{20,}; Path=\/; Expires=.*HttpOnly; SameSite=lax$/i),
      expect.stringMatching(/^izzam_device=v1\.[\w-]{40,}; Path=\/; Expires=.*HttpOnly; SameSite=lax$/i),
    ]);
    const secure = await ask("POST /sign-in", { body, headers: { "x-forwarded-proto": "https" } });
    expect(secure.headers.getSetCookie().map((c) => c.includes("Secure"))).toEqual([true, true]);
    const token = /izzam_session=([\w-]+)/.exec(plain.headers.getSetCookie()[0] ?? "")?.[1] ?? "";
    expect((await ask("GET /find", { cookie: `izzam_session=${token}` })).status).toBe(200);
    const out = await ask("POST /sign-out", { cookie: `izzam_session=${token}` });
    expect(out.headers.getSetCookie()[0]).toMatch(/^izzam_session=; .*Expires=Thu, 01 Jan 1970/);
    expect((await ask("GET /find", { cookie: `izzam_session=${token}` })).status).toBe(401);
  });
  test("two requests at once keep their own", async () => {
    const [a, b] = await Promise.all([ask("GET /find", { cookie: who.owner }), ask("GET /find", { cookie: who.phone })]);
    expect([a.status, b.status]).toEqual([200, 401]);
  });
});
