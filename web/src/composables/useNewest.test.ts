import { expect, it } from "vitest";
import { useNewest } from "@/composables/useNewest";

it("lets only the newest of several requests count", () => {
  const begin = useNewest();
  const first = begin();
  expect(first()).toBe(true);
  const second = begin();
  expect([first(), second()]).toEqual([false, true]);
});

it("keeps apart what was begun elsewhere", () => {
  const [one, other] = [useNewest()(), useNewest()()];
  expect([one(), other()]).toEqual([true, true]);
});
