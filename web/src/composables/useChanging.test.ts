import { describe, expect, it } from "vitest";
import type { Look } from "@/composables/scene/useLooks";
import { useChanging } from "@/composables/useChanging";
import { useValueEdits } from "@/composables/useValueEdits";
import { usePlayback } from "@/stores/playback";
import { baked, keyed, rows, staged, thing } from "@/testing/stage";

const MOVES = keyed([0, 1], [10, 2]);

describe("values at the playhead", () => {
  it("are plain where nothing is keyed, keys where something is, and keys of what is moved while moves are keyed", () => {
    const { scene, selection } = staged([thing("leaf", { x: MOVES })]);
    const leaf = scene.byId.get("leaf")!;
    usePlayback().goTo(4);
    const { editsFor } = useValueEdits();
    const key = { edit: "set-key", object: "leaf", frame: 4 };
    expect(editsFor(leaf, { x: 3, y: 5 }, false)).toEqual([
      { ...key, channel: "x", value: 3 },
      { edit: "set-value", object: "leaf", channel: "y", value: 5 },
    ]);
    expect(editsFor(leaf, { y: 5 }, true)).toEqual([{ ...key, channel: "y", value: 5 }]);
    selection.keyAsIMove = false;
    expect(editsFor(leaf, { y: 5 }, true)).toEqual([{ edit: "set-value", object: "leaf", channel: "y", value: 5 }]);
  });

  it("are points of a path where a path leads", () => {
    const { scene } = staged([thing("bird", { path: keyed([0, [1, 2]], [9, [3, 4]]) })]);
    baked({ bird: { x: rows(10, 11), y: rows(20, 21) } });
    usePlayback().goTo(1);
    expect(useValueEdits().editsFor(scene.byId.get("bird")!, { x: 7 }, false)).toEqual([
      { edit: "set-key", object: "bird", channel: "path", frame: 1, value: [7, 21] },
    ]);
  });

  it("are only looked at where moves are not keyed, with a way to keep them", async () => {
    const { scene, selection, edits, looks } = staged([thing("leaf", { x: MOVES })]);
    selection.keyAsIMove = false;
    const [leaf, changing] = [scene.byId.get("leaf")!, useChanging()];
    expect([changing.onlyLooks(leaf, { x: 3 }), changing.onlyLooks(leaf, { y: 3 })]).toEqual([true, false]);
    await changing.make(leaf, { x: 3 });
    expect([edits, looks.length]).toEqual([[], 1]);
    // What is changed next goes on from that look; what it changes again is replaced.
    scene.look = { edits: looks[0]!, said: "Leaf's travel" } as Look;
    changing.show(leaf, { x: 4 });
    changing.show(leaf, { rotation: 9 });
    expect(looks.slice(1)).toEqual([
      [{ edit: "set-key", object: "leaf", channel: "x", frame: 0, value: 4 }],
      [looks[0]![0], { edit: "set-value", object: "leaf", channel: "rotation", value: 9 }],
    ]);
  });
});

describe("the leaf beside a row", () => {
  it("keys what has no key here, and takes all away where all have one", async () => {
    const { scene, edits } = staged([thing("leaf", { x: MOVES, y: keyed([4, 1]) })]);
    const changing = useChanging();
    await changing.toggleKeys(scene.byId.get("leaf")!, ["path", "x", "y"]);
    expect(edits[0]).toEqual([{ edit: "set-key", object: "leaf", channel: "y", frame: 0 }]);
    usePlayback().goTo(4);
    await changing.toggleKeys(scene.byId.get("leaf")!, ["y"]);
    expect(edits[1]).toMatchObject([{ edit: "delete-keys", object: "leaf", channel: "y", frames: [4] }]);
  });
});
