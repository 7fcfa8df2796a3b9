import { expect, it, vi } from "vitest";
import { useUnfolded } from "@/composables/picking/useUnfolded";

it("shows and folds the parts of objects", () => {
  const { unfolded, fold, unfold, foldAll } = useUnfolded(() => false, vi.fn());
  fold("cart");
  unfold(["cart", "mill"]);
  expect([...unfolded.value]).toEqual(["cart", "mill"]);
  const before = unfolded.value;
  unfold(["mill"]);
  expect(unfolded.value).toBe(before);
  fold("cart");
  expect([...unfolded.value]).toEqual(["mill"]);
  foldAll();
  expect(unfolded.value.size).toBe(0);
});

it("leaves the picked row when its limb is folded, and no other", () => {
  let picked = true;
  const leaveRow = vi.fn(() => (picked = false));
  const { isLimbOpen, foldLimb } = useUnfolded((id, limb) => picked && id === "ant" && limb === "left leg", leaveRow);
  expect([isLimbOpen("ant", "left leg"), isLimbOpen("ant", "right leg")]).toEqual([true, false]);
  foldLimb("ant", "right leg");
  foldLimb("ant", "right leg");
  expect([isLimbOpen("ant", "right leg"), leaveRow.mock.calls.length]).toEqual([false, 0]);
  foldLimb("ant", "left leg");
  expect([isLimbOpen("ant", "left leg"), leaveRow.mock.calls.length]).toEqual([false, 1]);
});
