import { expect, it } from "vitest";
import { nudges } from "@/composables/shortcuts/nudges";

it("moves, turns and sizes by steps, larger ones with Shift", () => {
  const made: [string, Record<string, number>][] = [];
  const all = nudges((kind, by) => void made.push([kind, by]));
  const press = (key: string): void => all.find((one) => one.keys.includes(key))!.run(key);
  for (const key of ["ArrowLeft", "Shift+ArrowDown", "Alt+ArrowRight", "[", "}", "="]) press(key);
  expect(made).toEqual([
    ["move", { x: -1 }],
    ["move", { y: 10 }],
    ["pivot", { "pivot.x": 1 }],
    ["turn", { rotation: -1 }],
    ["turn", { rotation: 15 }],
    ["scale", { "scale.x": 1.02, "scale.y": 1.02 }],
  ]);
  press("-");
  const [, shrunk] = made.at(-1)!;
  expect(shrunk["scale.x"]! * 1.02).toBeCloseTo(1, 12);
});
