/** What is done to several picked objects at once. */
import { describe, expect, it } from "vitest";
import type { Drive } from "@/api/types";
import { useSeveral } from "@/composables/several/useSeveral";
import { useDeleting } from "@/stores/deleting";
import { useDrives } from "@/stores/drives";
import { usePlayback } from "@/stores/playback";
import { said } from "@/testing/said";
import { keyed, staged, thing } from "@/testing/stage";
import { still } from "@/api/channels";

function scene() {
  const all = staged([
    thing("post", { x: still(100), y: still(40) }),
    thing("arm", { rotation: keyed([4, 1]) }, { parent: "post" }),
    thing("leaf", { x: still(300), y: still(20), rotation: keyed([4, 2], [8, 3]) }, { tag: "#3D8B5F" }),
    thing("stone", {}, { locked: true, tag: "#3D8B5F" }),
  ]);
  return { ...all, several: useSeveral() };
}

describe("several objects", () => {
  it("are meant without what hangs on others of them, and handled without what is locked", async () => {
    const { selection, several, edits } = scene();
    selection.pickAll(["post", "arm", "stone"]);
    expect(several.tops().map((one) => one.id)).toEqual(["post", "stone"]);
    usePlayback().goTo(4);
    await several.align("left", "picture");
    expect(edits[0]).toEqual([
      { edit: "align-objects", objects: ["post", "arm"], frame: 4, key: true, side: "left", to: "picture" },
    ]);
    expect(several.moveEdit(3, -2)).toMatchObject({ edit: "move-objects", objects: ["post", "arm"], dx: 3, dy: -2 });
    expect(several.changeEdit({ x: 1, y: 2 }, { turn: 90, scale: [2, 2] })).toMatchObject({ about: [1, 2], turn: 90 });
  });

  it("become a group where they are, if they hang on the same", async () => {
    const { selection, several, edits } = scene();
    selection.pickAll(["post", "leaf"]);
    expect(await several.group()).toBeNull();
    expect(edits[0]![0]).toMatchObject({
      edit: "add-object",
      object: { kind: "group", parent: null, channels: { x: { base: 200 }, y: { base: 30 } } },
    });
    expect(edits[0]!.slice(1).map((one) => (one as { id: string }).id)).toEqual(["post", "leaf"]);
    expect(selection.renaming).toBe(selection.objectId);
    selection.pickAll(["arm", "leaf"]);
    expect(await several.group()).toContain("Attach them to the same parent first");
    expect(edits).toHaveLength(1);
  });

  it("are keyed together in one edit, and those keys taken away where all have one", async () => {
    const { selection, several, edits } = scene();
    selection.pickAll(["arm", "leaf"]);
    usePlayback().goTo(8);
    await several.toggleKeys("Rotation");
    expect(edits[0]).toEqual([{ edit: "key-objects", objects: ["arm", "leaf"], channels: ["rotation"], frame: 8 }]);
    usePlayback().goTo(4);
    await several.toggleKeys("Rotation");
    expect(edits[1]!.map((one) => (one as { object: string }).object)).toEqual(["arm", "leaf"]);
    expect(several.wish("x", { how: "add", value: 5 })).toMatchObject({
      edit: "change-values",
      channel: "x",
      how: "add",
      value: 5,
      key: false,
    });
  });

  it("are deleted together; what others read is asked about", async () => {
    const { selection, several, edits } = scene();
    useDrives().all = [{ driver: { object: "arm", channel: "x" }, driven: { object: "stone", channel: "x" } } as Drive];
    selection.pickAll(["post", "leaf"]);
    await several.remove();
    expect(edits).toEqual([[{ edit: "delete-object", id: "leaf" }]]);
    expect(said.info).toEqual(["Leaf is deleted."]);
    expect([selection.objectId, useDeleting().asked?.thing.id]).toEqual(["post", "post"]);
  });

  it("are picked by what they are like, without what is locked", () => {
    const { selection, several } = scene();
    selection.pick("leaf");
    several.pickAlike("kind");
    expect(selection.picked).toEqual(["leaf", "post", "arm"]);
    selection.pick("leaf");
    several.pickAlike("tag");
    expect(selection.picked).toEqual(["leaf"]);
  });
});
