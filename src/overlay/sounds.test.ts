import { afterEach, beforeEach, describe, expect, jest, test } from "@jest/globals";
import { SoundBoard } from "./sounds";

/** An audio clock that goes as the test says, and remembers what was scheduled on it. */
class Context {
  static last: Context;
  currentTime = 10;
  state = "running";
  sampleRate = 8_000;
  destination = {};
  started: number[] = [];
  stopped = 0;
  gains: number[] = [];
  constructor() {
    Context.last = this;
  }
  createBuffer = (_: number, length: number) => ({ getChannelData: () => new Float32Array(length) });
  createAnalyser = () => ({ fftSize: 0, connect: () => undefined, getFloatTimeDomainData: () => undefined });
  createGain = () => {
    const gain = { value: 1 };
    return { gain, connect: () => void this.gains.push(gain.value) };
  };
  createBufferSource = () => ({
    buffer: null,
    onended: null,
    connect: <T>(to: T): T => to,
    start: (at: number) => void this.started.push(at),
    stop: () => void (this.stopped += 1),
  });
  close = (): Promise<void> => Promise.resolve();
}
beforeEach(() => {
  jest.useFakeTimers();
  Object.assign(globalThis, { AudioContext: Context, window: globalThis });
});
afterEach(() => void jest.useRealTimers());
const knocks = (...inMs: number[]) => inMs.map((ms) => ({ inMs: ms, strength: 1 }));
const speaking = (): SoundBoard => {
  const board = new SoundBoard();
  board.state();
  board.setVoice(true);
  return board;
};

describe("knocks", () => {
  test("stand on the audio clock at their times, a second ahead and no further, so that a busy frame makes none late", () => {
    const board = speaking();
    board.knock(knocks(0, 250, 900, 1_600, 2_400), 600, 0.5);
    const clock = Context.last;
    expect(clock.started).toEqual([10, 10.25, 10.9]);
    clock.currentTime = 10.7;
    jest.advanceTimersByTime(300);
    expect(clock.started.at(-1)).toBeCloseTo(11.6);
    clock.currentTime = 12;
    jest.advanceTimersByTime(300);
    expect(clock.started).toHaveLength(5);
    expect(board.knocks).toBe(5);
    // Nothing is left to be looked after.
    expect(jest.getTimerCount()).toBe(0);
  });
  test("what was to come before now is left out: a page that comes late hears the rest", () => {
    speaking().knock(knocks(-500, -1, 40), 600, 0.5);
    expect(Context.last.started).toEqual([10.04]);
  });
  test("are as loud as they are strong", () => {
    speaking().knock([{ inMs: 0, strength: 0.4 }], 600, 0.5);
    expect(Context.last.gains).toEqual([0.2]);
  });
  test("only the page that has the voice makes any, and none is made at no volume or while the browser forbids it", () => {
    const board = new SoundBoard();
    board.state();
    board.knock(knocks(0), 600, 0.5);
    board.setVoice(true);
    board.knock(knocks(0), 600, 0);
    Context.last.state = "suspended";
    board.knock(knocks(0), 600, 0.5);
    expect([Context.last.started, board.knocks]).toEqual([[], 0]);
  });
  test("who asked may leave out those that are yet to come; hush and the voice going elsewhere do it too", () => {
    for (const silence of [
      (_: SoundBoard, stop: () => void) => stop(),
      (board: SoundBoard) => board.stopAll(),
      (board: SoundBoard) => board.setVoice(false),
    ]) {
      const board = speaking();
      const stop = board.knock(knocks(0, 500, 1_500), 600, 0.5);
      silence(board, stop);
      Context.last.currentTime = 20;
      jest.advanceTimersByTime(2_000);
      expect([Context.last.started.length, Context.last.stopped]).toEqual([2, 2]);
    }
  });
});
