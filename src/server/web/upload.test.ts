import { describe, expect, test } from "@jest/globals";
import { existsSync } from "node:fs";
import { ok, refusal } from "../../core/kernel/refusal";
import { type Brought, bytesOf, headOf, shaOf } from "./brought";
import { sha256 } from "../hash";
import { withUpload } from "./upload";

const limits = { most: 200_000, tooLarge: refusal("too-large"), missing: refusal("missing") };
/** As Next.js hands it on: a body that is read as it comes, with the length that was announced. */
async function formRequest(
  parts: Record<string, string | File>,
  change: (bytes: Buffer) => Buffer = (b) => b,
  length?: number,
): Promise<Request> {
  const form = new FormData();
  for (const [name, value] of Object.entries(parts)) form.set(name, value);
  const made = new Response(form);
  const bytes = change(Buffer.from(await made.arrayBuffer()));
  const type = made.headers.get("content-type") ?? "";
  const body = new ReadableStream({
    start(controller) {
      for (let at = 0; at < bytes.length; at += 16_384) controller.enqueue(new Uint8Array(bytes.subarray(at, at + 16_384)));
      controller.close();
    },
  });
  const headers = { "content-type": type, "content-length": String(length ?? bytes.length) };
  return new Request("http://127.0.0.1/api/props", { method: "POST", headers, body, duplex: "half" } as RequestInit);
}
const bytes = (size: number): Buffer<ArrayBuffer> => Buffer.from(Array.from({ length: size }, (_, i) => i % 251));
const refusedAs = async (request: Request): Promise<string> => {
  const done = await withUpload(request, "file", limits, async () => ok("taken"));
  return done.ok ? done.value : done.refusal.code;
};

describe("a file that comes as a form", () => {
  test("lies on the disk while it is worked with, whole, under its own name, and is gone afterwards", async () => {
    const request = await formRequest({ note: "aside", file: new File([bytes(200_000)], "Töpfer.mp4") });
    let path = "";
    const done = await withUpload(request, "file", limits, async (file: Brought) => {
      path = "path" in file ? file.path : "";
      expect([file.name, file.size, existsSync(path)]).toEqual(["Töpfer.mp4", 200_000, true]);
      expect((await bytesOf(file)).equals(bytes(200_000))).toBe(true);
      expect((await headOf(file)).equals(bytes(4_100))).toBe(true);
      expect(await shaOf(file)).toBe(sha256(bytes(200_000)));
      return ok("done");
    });
    expect(done).toEqual({ ok: true, value: "done" });
    expect(existsSync(path)).toBe(false);
  });
  test("is gone afterwards too where the work with it failed", async () => {
    let path = "";
    const work = withUpload(await formRequest({ file: new File([bytes(10)], "a") }), "file", limits, async (file: Brought) => {
      path = "path" in file ? file.path : "";
      throw new Error("the work");
    });
    await expect(work).rejects.toThrow("the work");
    expect(existsSync(path)).toBe(false);
  });
  test.each<[string, () => Promise<Request>, string]>([
    ["larger than may be, by a byte", () => formRequest({ file: new File([bytes(200_001)], "a") }), "too-large"],
    ["that announces too much", () => formRequest({ file: new File([bytes(5)], "a") }, undefined, 10_000_000), "too-large"],
    ["that announces less than comes", () => formRequest({ file: new File([bytes(300_000)], "a") }, undefined, 10), "too-large"],
    ["that breaks off", () => formRequest({ file: new File([bytes(90_000)], "a") }, (b) => b.subarray(0, 50_000)), "upload/broken"],
    ["of another field", () => formRequest({ picture: new File([bytes(5)], "a") }), "missing"],
    ["that is a text", () => formRequest({ file: "just words" }), "missing"],
    ["that is empty, which the work has to judge", () => formRequest({ file: new File([], "a") }), "taken"],
  ])("%s", async (_, request, code) => expect(await refusedAs(await request())).toBe(code));
  test("that is no form, and one without a length", async () => {
    const plain = new Request("http://127.0.0.1/", {
      method: "POST",
      body: "{}",
      headers: { "content-length": "2", "content-type": "text/plain" },
    });
    expect(await refusedAs(plain)).toBe("missing");
    expect(await refusedAs(new Request("http://127.0.0.1/", { method: "POST", body: new FormData() }))).toBe("too-large");
  });
});
