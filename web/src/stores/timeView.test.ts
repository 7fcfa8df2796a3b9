import { createPinia, setActivePinia } from "pinia";
import { beforeEach, expect, it, vi } from "vitest";
import { useScene } from "@/stores/scene";
import { AIR, NAMES, useTimeView } from "@/stores/timeView";

vi.mock("@/stores/messages", () => ({ useMessages: () => ({}) }));

beforeEach(() => {
  setActivePinia(createPinia());
  useScene().head = { fps: 24, length: 100 } as never;
  useTimeView().width = NAMES + 2 * AIR + 1000;
});

it("shows the whole scene until it is zoomed", () => {
  const time = useTimeView();
  expect([time.perFrame, time.shown, time.scroll, time.zoomed]).toEqual([10, 100, 0, false]);
});

it("zooms about a frame, which stays where it is", () => {
  const time = useTimeView();
  time.zoomBy(2, 60);
  expect(time.perFrame).toBe(20);
  // Frame 60 was 600 px from the left, and still is.
  expect(60 * time.perFrame - time.scroll).toBeCloseTo(600, 9);
  time.zoomBy(1 / 8, 60);
  expect([time.perFrame, time.scroll]).toEqual([10, 0]);
});

it("never shows more than there is, nor frames wider than they should be", () => {
  const time = useTimeView();
  time.zoomBy(1000, 50);
  expect(time.perFrame).toBe(80);
  time.panTo(5000);
  expect(time.first + time.shown).toBeCloseTo(100, 9);
  time.panTo(-5);
  expect(time.first).toBe(0);
});

it("brings a frame into view only if it is not", () => {
  const time = useTimeView();
  time.zoomBy(4, 0);
  time.reveal(10);
  expect(time.first).toBe(0);
  time.reveal(90);
  expect(time.first).toBeLessThanOrEqual(90);
  expect(time.first + time.shown).toBeGreaterThanOrEqual(90);
  time.show(40, 60);
  expect(time.first).toBeGreaterThan(35);
  expect(time.first + time.shown).toBeLessThan(65);
  time.fit();
  expect(time.shown).toBe(100);
});
