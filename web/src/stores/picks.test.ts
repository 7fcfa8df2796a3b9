import { createPinia, setActivePinia } from "pinia";
import { beforeEach, expect, it, vi } from "vitest";
import { allKeysOf, keyAt, keysAt, usePicks } from "@/stores/picks";
import { useScene } from "@/stores/scene";

vi.mock("@/stores/messages", () => ({ useMessages: () => ({}) }));

const key = (frame: number) => ({ frame, value: frame * 2, ease: "even" });
const thing = (id: string, channels: Record<string, number[]>) =>
  ({
    id,
    kind: "shape",
    rules: [],
    channels: Object.fromEntries(Object.entries(channels).map(([name, frames]) => [name, { keys: frames.map(key) }])),
  }) as never;
const moth = thing("moth", { x: [0, 12, 24], rotation: [0, 24] });
const toad = thing("toad", { x: [6] });

beforeEach(() => {
  setActivePinia(createPinia());
  useScene().objects = [moth, toad];
});

it("finds keys by channel and frame", () => {
  expect(keysAt(moth, ["x", "rotation"], new Set([0, 12]))).toEqual([
    { object: "moth", channel: "x", frames: [0, 12] },
    { object: "moth", channel: "rotation", frames: [0] },
  ]);
  expect(keysAt(moth, ["y"], null)).toEqual([]);
  expect(allKeysOf(toad)).toEqual([{ object: "toad", channel: "x", frames: [6] }]);
  expect(keyAt(moth, "x", 12)?.value).toBe(24);
  expect(keyAt(moth, "x", 13)).toBeUndefined();
});

it("picks more and fewer, over several objects", () => {
  const picks = usePicks();
  picks.set(keysAt(moth, ["x"], new Set([0, 12])));
  picks.add(allKeysOf(toad));
  expect([picks.count, picks.frames]).toEqual([3, [0, 6, 12]]);
  expect(picks.has("toad", "x", 6)).toBe(true);
  expect(picks.hasAll(keysAt(moth, ["x"], null))).toBe(false);
  expect(picks.hasAll([])).toBe(false);
  picks.remove(keysAt(moth, ["x"], new Set([0, 12])));
  expect(picks.keys).toEqual([{ object: "toad", channel: "x", frames: [6] }]);
  picks.clear();
  expect(picks.count).toBe(0);
});

it("forgets keys that are gone, and says where the others would go", () => {
  const picks = usePicks();
  picks.set([
    { object: "moth", channel: "x", frames: [0, 12, 99] },
    { object: "nobody", channel: "x", frames: [1] },
  ]);
  expect(picks.keys).toEqual([{ object: "moth", channel: "x", frames: [0, 12] }]);
  expect(picks.moved((frame) => frame + 5)).toEqual([{ object: "moth", channel: "x", frames: [5, 17] }]);
});
