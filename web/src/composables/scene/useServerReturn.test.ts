import { afterEach, beforeEach, expect, it, vi } from "vitest";
import { useServerReturn } from "@/composables/scene/useServerReturn";

beforeEach(() => void vi.useFakeTimers());
afterEach(() => void vi.useRealTimers());

it("asks until the server answers, says so once, and asks no more", async () => {
  const ask = vi.fn().mockRejectedValueOnce(new Error("nobody answers")).mockResolvedValue(null);
  const back = vi.fn();
  const { unreachable, lost } = useServerReturn(ask, () => true, back);
  expect(unreachable.value).toBe(false);
  lost();
  await vi.advanceTimersByTimeAsync(2000);
  expect([unreachable.value, back.mock.calls.length]).toEqual([true, 0]);
  await vi.advanceTimersByTimeAsync(2000);
  expect([unreachable.value, back.mock.calls.length]).toEqual([false, 1]);
  await vi.advanceTimersByTimeAsync(10_000);
  expect(ask).toHaveBeenCalledTimes(2);
});

it("asks no more once something else was answered, or nothing is open", async () => {
  const ask = vi.fn().mockResolvedValue(null);
  let open = true;
  const { lost, answered } = useServerReturn(ask, () => open, vi.fn());
  lost();
  answered();
  await vi.advanceTimersByTimeAsync(10_000);
  lost();
  open = false;
  await vi.advanceTimersByTimeAsync(10_000);
  expect(ask).not.toHaveBeenCalled();
});
