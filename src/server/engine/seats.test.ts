import { describe, expect, test } from "@jest/globals";
import { neighbourhood, seats } from "./seats";

const from = (address: string, local = false) => ({ address, local });

describe("sockets", () => {
  test("one address can take no more than its share, and the others still come in", () => {
    const places = seats(10, 3);
    const mine = [1, 2, 3].map(() => places.take(from("203.0.113.9")));
    expect(mine.every((leave) => leave !== null)).toBe(true);
    expect(places.take(from("203.0.113.9"))).toBeNull();
    expect(places.take(from("203.0.113.10"))).not.toBeNull();
    mine[0]?.();
    expect(places.take(from("203.0.113.9"))).not.toBeNull();
  });
  test("a seat is given back once, however often it is said to be free", () => {
    const places = seats(2, 1);
    const leave = places.take(from("203.0.113.9"));
    leave?.();
    leave?.();
    expect(places.open()).toBe(0);
    expect(places.take(from("203.0.113.9"))).not.toBeNull();
    expect(places.take(from("203.0.113.9"))).toBeNull();
  });
  test("in all there are so many, and this machine's own pages are not counted one by one", () => {
    const places = seats(5, 2);
    for (let i = 0; i < 5; i += 1) expect(places.take(from("127.0.0.1", true))).not.toBeNull();
    expect(places.take(from("127.0.0.1", true))).toBeNull();
  });
  test("an address called like something every object has is an address", () => {
    const places = seats(10, 1);
    for (const name of ["__proto__", "constructor", ""]) {
      expect(places.take(from(name))).not.toBeNull();
      expect(places.take(from(name))).toBeNull();
    }
  });
  test("who moves about within an IPv6 network is still one", () => {
    expect(neighbourhood("2001:db8:1:2::9")).toBe(neighbourhood("2001:DB8:1:2:ffff:a:b:c"));
    expect(neighbourhood("2001:db8::1:0:0:5")).toBe(neighbourhood("2001:db8::9"));
    expect(neighbourhood("2001:db8:1:3::9")).not.toBe(neighbourhood("2001:db8:1:2::9"));
    expect(neighbourhood("fe80::1%eth0")).toBe(neighbourhood("fe80::2"));
    expect(neighbourhood("203.0.113.9")).toBe("203.0.113.9");
    expect(neighbourhood("::ffff:203.0.113.9")).toBe("203.0.113.9");
    expect(neighbourhood("unknown")).toBe("unknown");
  });
});
