import { expect, it } from "vitest";
import { useOvertaking } from "@/composables/scene/useOvertaking";

const MOVE_MOTH = [{ edit: "set-key", object: "moth" }];
const ids = new Set(["moth", "leaf"]);

it("tells who changed what is being dragged, until the drag has ended", () => {
  const { press, note, whoOvertook, forget } = useOvertaking(() => ids);
  press(true);
  note("Ada", new Set(["moth"]));
  expect(whoOvertook(MOVE_MOTH)).toBe("Ada");
  expect(whoOvertook([{ edit: "set-key", object: "leaf" }])).toBeNull();
  // Letting the button go does not end it: the edit is asked for after that.
  press(false);
  expect(whoOvertook(MOVE_MOTH)).toBe("Ada");
  forget();
  expect(whoOvertook(MOVE_MOTH)).toBeNull();
});

it("begins each drag with nobody in its way", () => {
  const { press, note, whoOvertook } = useOvertaking(() => ids);
  press(true);
  note("Ada", new Set(["moth"]));
  press(true);
  expect(whoOvertook(MOVE_MOTH)).toBeNull();
});

it("takes no heed of what others do while nothing is dragged", () => {
  const { note, whoOvertook } = useOvertaking(() => ids);
  note("Ada", new Set(["moth"]));
  expect(whoOvertook(MOVE_MOTH)).toBeNull();
});
