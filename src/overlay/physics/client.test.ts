import { beforeAll, describe, expect, test } from "@jest/globals";
import { deskHere } from "../../testing/desk-here";
import { PileClient } from "./client";
import type { Engine } from "./engine";
import { loadEngine } from "./load-engine";
import type { Ground } from "./pile-parts";

let engine: Engine;
beforeAll(async () => {
  engine = await loadEngine();
});
const ground: Ground = { wall: null, thickness: 0, boxes: [], top: 0, floor: 10, left: 0, right: 16, sides: true, gravity: 30 };
const piece = { width: 1, height: 1, form: "circle" as const, mass: 5, bounce: 0.2 };

function page() {
  const desks: ReturnType<typeof deskHere>[] = [];
  let told = 0;
  const client: PileClient = new PileClient(
    () => {
      const desk = deskHere(engine);
      desks.push(desk);
      return desk;
    },
    () => {
      told += 1;
      client.restart();
      client.tell({ t: "begin", ground, cap: 100, slides: false });
      client.tell({ t: "settle", drops: [{ ref: 1, count: 8, seed: 3, piece }], lies: null });
    },
  );
  client.tell({ t: "begin", ground, cap: 100, slides: false });
  return {
    client,
    desks,
    told: () => told,
    frames: (from: number, n: number) => {
      for (let i = 0; i < n; i += 1) client.frame(from + i * 16);
    },
  };
}

describe("a page's end of a pile", () => {
  test("is told where the pieces are, until they rest; then it asks no more", () => {
    const { client, frames, desks } = page();
    client.tell({ t: "drop", drops: [{ ref: 1, count: 8, seed: 3, piece }] });
    frames(1_000, 30);
    expect(client.count).toBeGreaterThan(0);
    expect(client.moves).toBe(true);
    frames(1_480, 600);
    expect(client.count).toBe(8);
    expect(client.moves).toBe(false);
    const asked = desks[0]!.told.length;
    frames(12_000, 10);
    expect(desks[0]!.told.length).toBe(asked);
  });
  test("hidden for an hour and shown again, it goes on from where it was", () => {
    const { client, frames } = page();
    client.tell({ t: "drop", drops: [{ ref: 1, count: 8, seed: 3, piece }] });
    frames(1_000, 10);
    frames(3_600_000, 40);
    expect(client.count).toBe(8);
    expect([...client.rows.slice(0, 8 * 7)].every(Number.isFinite)).toBe(true);
    expect(client.crashes).toBe(0);
  });
  test("begins another worker when one dies, tells it what lies there, and gives up after the third", () => {
    const { client, desks, told, frames } = page();
    frames(1_000, 10);
    desks[0]!.die();
    expect([client.crashes, told(), desks.length]).toEqual([1, 1, 2]);
    frames(2_000, 10);
    expect(client.count).toBe(8);
    desks[1]!.die();
    desks[2]!.die();
    expect([client.given, client.moves]).toEqual([true, false]);
    // An old one's last cry changes nothing.
    desks[0]!.die();
    expect(client.crashes).toBe(3);
  });
  test("does not wait for ever for one that never answers", () => {
    const { client, desks, frames } = page();
    client.tell({ t: "drop", drops: [{ ref: 1, count: 8, seed: 3, piece }] });
    frames(1_000, 3);
    desks[0]!.mute = true;
    frames(1_100, 420);
    expect(desks.length).toBe(2);
  });
  test("does without one where no worker can be had", () => {
    const client = new PileClient(
      () => {
        throw new Error("no workers here");
      },
      () => undefined,
    );
    client.tell({ t: "empty" });
    expect([client.given, client.moves]).toEqual([true, false]);
  });
});
