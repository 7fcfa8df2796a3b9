/** Everything that can be found by its name, and what happens when it is chosen. */
import { describe, expect, it, vi } from "vitest";
import { still } from "@/api/channels";
import { useFindables } from "@/composables/useFindables";
import { usePlayback } from "@/stores/playback";
import { dial, staged, thing } from "@/testing/stage";

function gorge() {
  const swing = { id: "r", kind: "oscillator", on: true, channels: ["rotation"], settings: { amplitude: still(3) } };
  const cue = { id: "c", name: "Hop", first: 10, last: 20 };
  const leaf = thing("leaf", {}, { rules: [swing] as never });
  const stage = staged([thing("stone"), leaf], { dials: [dial("wind", 1)], cues: [cue] as never });
  const [run, open] = [vi.fn(), vi.fn()];
  const shortcuts = [{ group: "Time", keys: [",", "."], says: "Step", run }];
  const found = useFindables(shortcuts as never, open);
  const named = (name: string) => found.value.find((one) => one.name === name)!;
  return { ...stage, found, named, run, open };
}

describe("what is found by its name", () => {
  it("is picked: objects, dials, and values and settings of what is picked", () => {
    const { selection, named, found } = gorge();
    expect(found.value.some((one) => one.kind === "value")).toBe(false);
    named("Wind").run();
    expect(selection.objectId).toBe("dial:wind");
    named("Leaf").run();
    expect(selection.objectId).toBe("leaf");
    named("Size of Leaf").run();
    expect(selection.row?.name).toBe("Size");
    named("Oscillator amplitude of Leaf").run();
    expect(selection.row?.name, "the row that the rule acts on").toBe("Rotation");
  });

  it("is gone to: the stretch of a cue", () => {
    gorge().named("Hop").run();
    expect(usePlayback().frame).toBe(10);
    expect([usePlayback().from, usePlayback().to]).toEqual([10, 20]);
  });

  it("is done: what keys do, each of those that do the same to either side by itself", () => {
    const { named, found, run, open } = gorge();
    const steps = found.value.filter((one) => one.kind === "time");
    expect(steps).toHaveLength(2);
    steps[1]!.run();
    expect(run).toHaveBeenCalledWith(".");
    named("Length of the scene").run();
    expect(open).toHaveBeenCalledWith("settings");
  });
});
