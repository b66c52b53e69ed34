import { createServer, type RequestListener } from "node:http";
import type { AddressInfo } from "node:net";
import { describe, expect, test } from "@jest/globals";
import { answersAway, inWords } from "./away";

const isAway = (error: unknown): boolean => (error as { code?: string }).code === "ETIMEDOUT";
const silent = () =>
  Promise.reject(
    Object.assign(new Error("select * from `operators` where `login` = 'x' - the database says nothing"), { code: "ETIMEDOUT" }),
  );

/** A server whose page fails as a page of Next.js does: a status, headers, and a body in parts. */
async function asked(page: RequestListener, accept = "text/html"): Promise<Readonly<{ status: number; body: string; headers: Headers }>> {
  const server = createServer((req, res) => {
    answersAway(req, res, () => 10_000);
    page(req, res);
  });
  await new Promise<void>((resolve) => server.listen(0, "127.0.0.1", resolve));
  const answer = await fetch(`http://127.0.0.1:${(server.address() as AddressInfo).port}/`, { headers: { accept } });
  const body = await answer.text();
  server.close();
  return { status: answer.status, body, headers: answer.headers };
}
const failing: RequestListener = (_, res) => {
  res.statusCode = 500;
  res.setHeader("etag", "x");
  res.setHeader("content-encoding", "identity");
  res.write("<html>a page ");
  res.end("that could not be made</html>");
};

describe("a database that does not answer", () => {
  test("is told in words: no statement, no stack; other errors stay as they are", async () => {
    const store = inWords(
      { accounts: { find: silent, name: "accounts" }, deep: { odd: () => Promise.reject(new Error("ER_DUP_ENTRY")) }, now: () => 3 },
      isAway,
      () => 9_000,
    );
    const error = await store.accounts.find().catch((e: unknown) => e as Error);
    expect([String(error), (error as Error).stack, isAway(error)]).toEqual([
      "Error: the database does not answer",
      "Error: the database does not answer",
      true,
    ]);
    await expect(store.deep.odd()).rejects.toThrow("ER_DUP_ENTRY");
    expect([store.accounts.name, store.now()]).toEqual(["accounts", 3]);
  });
  test("a page that failed because of it is a 503 in words that tries again by itself", async () => {
    const { status, body, headers } = await asked(failing);
    expect([status, headers.get("retry-after"), headers.get("etag"), headers.get("cache-control")]).toEqual([503, "4", null, "no-store"]);
    expect(body).toContain("The database does not answer.");
    expect(body).not.toContain("could not be made<");
  });
  test("what is no page, and a page that is well, stays what it is", async () => {
    expect((await asked(failing, "application/json")).status).toBe(500);
    const well = await asked((_, res) => {
      res.writeHead(200, { "content-type": "text/html" });
      res.write("all ");
      res.end("well");
    });
    expect([well.status, well.body]).toEqual([200, "all well"]);
    expect((await asked((_, res) => void res.writeHead(500).end("now"))).status).toBe(503);
  });
});
