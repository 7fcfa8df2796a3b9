/** Following at a calmer pace. */
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import { nextTick, ref, watch } from "vue";
import { useCalm } from "@/composables/scene/useCalm";

beforeEach(() => void vi.useFakeTimers());
afterEach(() => {
  vi.restoreAllMocks();
  vi.useRealTimers();
});

describe("what is followed calmly", () => {
  it("is the newest at once, where nothing comes often", () => {
    const source = ref(1);
    const calm = useCalm(source, () => false);
    expect(calm.value).toBe(1);
    for (const value of [2, 3]) {
      source.value = value;
      expect(calm.value).toBe(value);
    }
  });

  it("comes ten times a second while there is much, and ends with the last", () => {
    const source = ref(0);
    const calm = useCalm(source, () => true);
    const seen = new Set<number>();
    for (let i = 1; i <= 60; i++) {
      source.value = i;
      seen.add(calm.value);
      vi.advanceTimersByTime(10);
    }
    expect(seen.size).toBeGreaterThan(4);
    expect(seen.size).toBeLessThan(9);
    vi.advanceTimersByTime(100);
    expect(calm.value).toBe(60);
  });

  it("comes together with the source, never between two of its values, until that rests", () => {
    const source = ref(0);
    const calm = useCalm(source, () => true);
    let [changes, before] = [0, calm.value];
    for (let i = 1; i <= 60; i++) {
      source.value = i;
      [changes, before] = [changes + Number(calm.value !== before), calm.value];
      vi.advanceTimersByTime(30);
      expect(calm.value).toBe(before);
    }
    expect(changes).toBeGreaterThan(10);
  });

  it("comes more rarely where the page takes long to follow it", async () => {
    const source = ref(0);
    const calm = useCalm(source, () => true);
    watch(calm, () => vi.setSystemTime(Date.now() + 20), { flush: "pre" });
    vi.spyOn(performance, "now").mockImplementation(() => Date.now());
    const seen = new Set<number>();
    for (let i = 1; i <= 100; i++) {
      source.value = i;
      seen.add(calm.value);
      await nextTick();
      vi.advanceTimersByTime(20);
    }
    expect(seen.size).toBeGreaterThan(3);
    expect(seen.size).toBeLessThan(8);
  });

  it("does not go back to what came late once it is quiet", () => {
    const source = ref(0);
    let busy = true;
    const calm = useCalm(source, () => busy);
    for (const value of [1, 2, 3]) source.value = value;
    busy = false;
    source.value = 7;
    expect(calm.value).toBe(7);
    vi.advanceTimersByTime(500);
    expect(calm.value).toBe(7);
  });
});
