import { createPinia, setActivePinia } from "pinia";
import { beforeEach, expect, it, vi } from "vitest";
import { useScene } from "@/stores/scene";
import { usePlayback } from "@/stores/playback";

// Messages are shown by a library of components that needs a page.
vi.mock("@/stores/messages", () => ({ useMessages: () => ({}) }));

/** A browser with nothing but a clock of frames, there before the libraries look for one. */
const browser = vi.hoisted(() => {
  const state = { callbacks: [] as FrameRequestCallback[], now: 1000 };
  const window = {
    requestAnimationFrame: (callback: FrameRequestCallback) => state.callbacks.push(callback),
    cancelAnimationFrame: () => (state.callbacks = []),
  };
  Object.assign(globalThis, { window, document: { createElement: () => ({}) } });
  return state;
});

/** Let the browser paint a frame, `after` milliseconds later. */
function paint(after: number): void {
  browser.now += after;
  const due = browser.callbacks;
  browser.callbacks = [];
  for (const one of due) one(browser.now);
}

beforeEach(() => {
  browser.callbacks = [];
  vi.spyOn(performance, "now").mockImplementation(() => browser.now);
  setActivePinia(createPinia());
  useScene().head = { fps: 50, length: 100 } as never;
});

it("plays at the scene's pace and begins again after the last frame", () => {
  const playback = usePlayback();
  playback.goTo(97);
  playback.play();
  paint(16);
  const seen = [20, 20, 20, 20].map((after) => (paint(after), playback.frame));
  expect(seen).toEqual([98, 99, 0, 1]);
  playback.loop = false;
  playback.goTo(98);
  for (let n = 0; n < 4; n += 1) paint(20);
  expect([playback.frame, playback.playing]).toEqual([99, false]);
});

it("tells its frame in words ten times a second while it plays, and at once when it rests", () => {
  const playback = usePlayback();
  playback.goTo(10);
  expect(playback.textFrame).toBe(10);
  playback.play();
  paint(16);
  const told = new Set<number>();
  for (let n = 0; n < 50; n += 1) {
    paint(20);
    told.add(playback.textFrame);
  }
  expect(told.size).toBeGreaterThanOrEqual(10);
  expect(told.size).toBeLessThanOrEqual(12);
  playback.pause();
  expect(playback.textFrame).toBe(playback.frame);
  playback.goTo(33);
  expect(playback.textFrame).toBe(33);
});

it("keeps the range within the scene and forgets one that is all of it", () => {
  const playback = usePlayback();
  playback.setRange(40, 20);
  expect([playback.from, playback.to]).toEqual([20, 40]);
  playback.goTo(90);
  playback.play();
  paint(16);
  expect(playback.frame).toBe(20);
  playback.setRange(-5, 400);
  expect(playback.range).toBeNull();
});
