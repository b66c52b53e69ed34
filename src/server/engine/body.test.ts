import { describe, expect, test } from "@jest/globals";
import type { IncomingMessage } from "node:http";
import { Readable } from "node:stream";
import { readBody } from "./body";

const request = (parts: readonly string[], headers: Record<string, string> = {}): IncomingMessage =>
  Object.assign(Readable.from(parts.map((p) => Buffer.from(p))), { headers }) as never;

describe("the body of a request", () => {
  test("comes whole, however it was cut, half an emoji at a time too", async () => {
    const whole = Buffer.from("glaze 🔥");
    const pieces = [whole.subarray(0, 7), whole.subarray(7)];
    const req = Object.assign(Readable.from(pieces), { headers: {} }) as never;
    expect((await readBody(req))?.toString()).toBe("glaze 🔥");
    expect((await readBody(request([])))?.toString()).toBe("");
  });
  test("is refused when it says, or turns out, to be longer than it may", async () => {
    expect(await readBody(request(["x"], { "content-length": "11" }), 10)).toBeNull();
    expect(await readBody(request(["12345", "67890", "1"]), 10)).toBeNull();
    expect((await readBody(request(["12345", "67890"]), 10))?.toString()).toBe("1234567890");
  });
  test("whoever goes on and on is not heard out", async () => {
    let given = 0;
    const endless = (function* () {
      for (;;) {
        given += 1;
        yield Buffer.alloc(10);
      }
    })();
    const req = Object.assign(Readable.from(endless), { headers: {} }) as never;
    expect(await readBody(req, 10)).toBeNull();
    expect(given).toBeLessThan(50);
  });
});
