import { expect, it, vi } from "vitest";
import { useTurns } from "@/composables/scene/useTurns";

it("does one thing after the other, whatever becomes of those before", async () => {
  const [failed, done] = [vi.fn(async () => {}), vi.fn()];
  const { waiting, inTurn } = useTurns(failed, done);
  const order: string[] = [];
  let finish!: () => void;
  const first = inTurn(() => new Promise<void>((now) => (finish = () => (order.push("first"), now()))));
  const second = inTurn(async () => (order.push("second"), Promise.reject(new Error("refused"))));
  const third = inTurn(async () => (order.push("third"), 3), 0);
  await Promise.resolve();
  expect([waiting.value, order]).toEqual([2, []]);
  finish();
  expect(await Promise.all([first, second, third])).toEqual([undefined, undefined, 3]);
  expect(order).toEqual(["first", "second", "third"]);
  expect([failed.mock.calls.length, done.mock.calls.length]).toEqual([1, 2]);
  await vi.waitFor(() => expect(waiting.value).toBe(0));
});
