import { describe, expect, test } from "@jest/globals";
import { MusicNow } from "./music";
import { Sight } from "./sight";

describe("what plays on the stage", () => {
  const beat = { everyMs: 500, firstMs: 40 };
  test("is the newest sound of some length, until it ends", () => {
    const music = new MusicNow();
    music.begin("bell", { ms: 900, beat: null }, 0);
    music.begin("gone", undefined, 0);
    expect(music.now(10)).toBeNull();
    music.begin("tune", { ms: 10_000, beat }, 100);
    music.begin("horn", { ms: 4_000, beat: null }, 2_000);
    expect(music.now(2_500)).toMatchObject({ sinceMs: 2_000 });
    expect(music.now(6_100)).toMatchObject({ sinceMs: 100, beat });
    expect(music.now(10_100)).toBeNull();
  });
  test("ends when it is stopped, and under hush", () => {
    const music = new MusicNow();
    music.begin("tune", { ms: 10_000, beat }, 0);
    music.end(["tune", "other"]);
    expect(music.now(5)).toBeNull();
    music.begin("tune", { ms: 10_000, beat }, 0);
    music.clear();
    expect(music.now(5)).toBeNull();
  });
});

describe("what moves on the stage", () => {
  test("is seen for a while; what lies still is not", () => {
    const sight = new Sight();
    const pile = {};
    sight.see(pile, 100, 100, 0);
    expect(sight.now(0)).toBeNull();
    sight.see(pile, 100, 130, 16);
    expect(sight.now(20)).toMatchObject({ x: 100, y: 130 });
    for (let ms = 32; ms < 2_000; ms += 16) sight.see(pile, 100, 130.2, ms);
    expect(sight.now(2_000)).toBeNull();
  });
  test("two who draw do not seem to be one that jumps", () => {
    const sight = new Sight();
    const [one, two] = [{}, {}];
    for (let ms = 0; ms < 100; ms += 16) {
      sight.see(one, 10, 10, ms);
      sight.see(two, 900, 500, ms);
    }
    expect(sight.now(100)).toBeNull();
    sight.forget(one);
    sight.see(one, 500, 10, 120);
    expect(sight.now(120)).toBeNull();
  });
});
