import { describe, expect, it } from "vitest";
import type { ChannelWords, SceneObject } from "@/api/types";
import { hasField, keyable, keysOf, still, takesRules, titleOf } from "@/api/channels";

const keyed = (value: number | [number, number]) => ({ ...still(0), keys: [{ frame: 0, value }] });
const thing = (channels: Record<string, unknown>, rules: unknown[] = []): SceneObject =>
  ({ id: "moth", kind: "shape", channels, rules }) as unknown as SceneObject;

describe("channels by name", () => {
  it("are found with those of settings, which are named by their rule", () => {
    const moth = thing({ x: keyed(1) }, [{ id: "r", settings: { amplitude: keyed(5), wave: "sine" } }]);
    expect(keysOf(moth, "x")).toHaveLength(1);
    expect(keysOf(moth, "r:amplitude")).toMatchObject([{ value: 5 }]);
    expect(keysOf(moth, "r:wave")).toEqual([]);
    expect(keysOf(moth, "y")).toEqual([]);
  });

  it("are keyed by the leaf of their row: the path where there is one, else all but that", () => {
    const row = ["x", "y", "path"];
    expect(keyable(thing({}), row)).toEqual(["x", "y"]);
    expect(keyable(thing({ path: keyed([0, 0]) }), row)).toEqual(["path"]);
    expect(keyable(thing({ path: keyed([0, 0]), x: keyed(3) }), row)).toEqual(["x", "path"]);
    expect(keyable(thing({}), ["opacity"])).toEqual(["opacity"]);
  });

  it("have a field where they hold a number or a colour, and rules where they are no path and no words", () => {
    const units = ["px", "", "colour", "point", "outline", "look", "words"].map((unit) => ({ unit }));
    expect(units.filter(hasField).map((one) => one.unit)).toEqual(["px", "", "colour"]);
    expect(units.filter(takesRules).map((one) => one.unit)).toEqual(["px", "", "colour", "outline", "look"]);
  });

  it("are called by their row, and by their label where that says more", () => {
    const words = (row: string, label: string) => ({ row, label }) as ChannelWords;
    expect(titleOf(words("Zoom", "zoom"))).toBe("Zoom");
    expect(titleOf(words("Travel", "x"))).toBe("Travel x");
  });
});
