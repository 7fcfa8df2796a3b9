import { describe, expect, it } from "vitest";
import { usePicks } from "@/stores/picks";
import { useSelection } from "@/stores/selection";
import { keyed, staged, thing } from "@/testing/stage";

const scene = () =>
  staged([
    thing("post", { x: keyed([0, 1], [10, 2]), rotation: keyed([4, 0]) }),
    thing("arm", {}, { parent: "post" }),
    thing("hand", {}, { parent: "arm" }),
    thing("leaf"),
  ]);

describe("what is picked", () => {
  it("shows its values, the row and channel with keys first", () => {
    const { selection } = scene();
    selection.pick("post");
    expect(selection.object?.name).toBe("Post");
    expect([selection.row?.name, selection.channel?.name]).toEqual(["Travel", "x"]);
    selection.pickRow("Travel", "y");
    expect(selection.channel?.name).toBe("y");
    selection.pickRow("nothing");
    expect(selection.row?.name).toBe("Travel");
  });

  it("unfolds all that it hangs on", () => {
    const { selection } = scene();
    selection.pick("hand");
    expect([...selection.unfolded].sort()).toEqual(["arm", "post"]);
    selection.fold("arm");
    expect([...selection.unfolded]).toEqual(["post"]);
  });

  it("can be several, of which the next leads when the first is let go", () => {
    const { selection } = scene();
    selection.pickAll(["post", "arm", "leaf"]);
    expect([selection.picked, selection.several]).toEqual([["post", "arm", "leaf"], true]);
    selection.toggle("post");
    expect(selection.picked).toEqual(["arm", "leaf"]);
    selection.toggle("post");
    selection.toggle("leaf");
    expect(selection.picked).toEqual(["arm", "post"]);
    expect(selection.others.map((one) => one.id)).toEqual(["post"]);
  });

  it("is nothing where the object is gone", () => {
    const { scene: store, selection } = scene();
    selection.pick("leaf");
    store.objects = store.objects.filter((one) => one.id !== "leaf");
    expect([selection.thing, selection.picked]).toEqual([null, []]);
  });

  it("keeps picked leaves of a row apart from those of others", () => {
    const { selection } = scene();
    selection.pick("post");
    selection.leaves = new Set([0, 10]);
    expect([...selection.leaves]).toEqual([0, 10]);
    expect(usePicks().keys).toEqual([{ object: "post", channel: "x", frames: [0, 10] }]);
    selection.pickRow("Rotation");
    expect(usePicks().count).toBe(0);
  });

  it("begins anew with a scene", () => {
    const { selection } = scene();
    selection.pickAll(["post", "leaf"]);
    selection.tool = "path";
    selection.reset();
    expect([selection.picked, selection.tool, selection.unfolded.size]).toEqual([[], "pick", 0]);
    expect(useSelection()).toBe(selection);
  });
});
