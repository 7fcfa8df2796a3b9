import { createPinia, setActivePinia } from "pinia";
import { beforeEach, expect, it, vi } from "vitest";
import { thisPage } from "@/api/page";
import type { PageWords, SceneChanged } from "@/api/types";
import { useOthers } from "@/stores/others";

const page = (id: string, name: string): PageWords => ({ id, name }) as PageWords;
const news = (what: string, how: SceneChanged["how"], by: PageWords | null): SceneChanged =>
  ({ news: "changed", what, how, by, revision: 2 }) as unknown as SceneChanged;

beforeEach(() => setActivePinia(createPinia()));

it("tells who else is there, and what this page is called", () => {
  const others = useOthers();
  expect(others.here([page(thisPage, "Page 1")])).toBe(false);
  expect([others.me, others.list]).toEqual(["Page 1", []]);
  expect(others.here([page(thisPage, "Page 1"), page("b", "Heron")])).toBe(true);
  // Somebody is called otherwise: nobody came or went.
  expect(others.here([page(thisPage, "Frog"), page("b", "Heron 2")])).toBe(false);
  expect([others.me, others.list.map((one) => one.name)]).toEqual(["Frog", ["Heron 2"]]);
});

it("remembers the last twenty things done, and shows the last one for a while", () => {
  vi.useFakeTimers();
  const others = useOthers();
  for (let n = 0; n < 25; n++) others.tell(news(`step ${n}`, "made", page("b", "Heron")));
  expect(others.done).toHaveLength(20);
  others.tell(news("key Mango", "undone", page("b", "Heron")));
  expect([others.latest?.who, others.latest?.what]).toEqual(["Heron", "took back: key Mango"]);
  others.tell(news("key Mango", "redone", null));
  expect([others.latest?.who, others.latest?.what]).toEqual(["Outside this page", "did again: key Mango"]);
  vi.advanceTimersByTime(6001);
  expect(others.latest).toBeNull();
  others.leave();
  expect(others.done).toEqual([]);
  vi.useRealTimers();
});
