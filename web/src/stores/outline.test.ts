import { createPinia, setActivePinia } from "pinia";
import { expect, it } from "vitest";
import { useOutline } from "@/stores/outline";

it("picks points anew, or adds to those picked and lets go of them again", () => {
  setActivePinia(createPinia());
  const outline = useOutline();
  outline.pick([1, 2]);
  outline.pick([5]);
  expect([...outline.picked]).toEqual([5]);
  outline.pick([7, 8], true);
  outline.pick([5, 8], true);
  expect([...outline.picked]).toEqual([7]);
  outline.clear();
  expect(outline.picked.size).toBe(0);
});
