import { describe, expect, test } from "@jest/globals";
import { dialectSchema } from "../chat/dialect";
import { roleSchema } from "./signal";

describe("roles that were stored under an earlier name", () => {
  test("a guest is a guest, and what is none stays none", () => {
    expect(roleSchema.parse("vip")).toBe("guest");
    expect(roleSchema.parse("guest")).toBe("guest");
    for (const no of ["VIP", "constructor", "", null]) expect(roleSchema.safeParse(no).success).toBe(false);
  });

  test("badges of a chat connection keep what they meant; where both names stand, the present one counts", () => {
    const before = { member: "patron", vip: "honoured", moderator: "guard", streamer: "host" };
    expect(dialectSchema.parse({ badges: before }).badges).toEqual({
      member: "patron",
      guest: "honoured",
      moderator: "guard",
      streamer: "host",
    });
    expect(dialectSchema.parse({ badges: { ...before, guest: "newer" } }).badges.guest).toBe("newer");
    expect(dialectSchema.parse({}).badges.guest).toBe("guest");
  });
});
