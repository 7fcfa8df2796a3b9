import { describe, expect, it } from "vitest";
import type { TroupeObject } from "@/api/types";
import { useSharedRows } from "@/composables/useSharedRows";
import { usePlayback } from "@/stores/playback";
import { baked, keyed, rows, staged, thing } from "@/testing/stage";

describe("what several objects share", () => {
  it("are the channels all of them have, and the values they agree on", () => {
    const { selection } = staged([
      thing("leaf"),
      thing("moth"),
      { ...thing("pair"), kind: "group" } as unknown as TroupeObject,
    ]);
    selection.pickAll(["leaf", "moth"]);
    baked({ leaf: { x: rows(5), y: rows(1) }, moth: { x: rows(5), y: rows(3) } });
    const shared = useSharedRows();
    const names = () => shared.value.map((one) => one.row.name);
    expect(names()).toEqual(["Travel", "Rotation", "Size", "Opacity", "Fill"]);
    const [x, y] = shared.value[0]!.channels;
    expect([x?.number, y?.number, y?.from, y?.to]).toEqual([5, null, 1, 3]);
    // A group has no fill.
    selection.pickAll(["leaf", "pair"]);
    expect(names()).not.toContain("Fill");
  });

  it("tell whether all, some or none are keyed here", () => {
    const { selection } = staged([thing("leaf", { x: keyed([0, 1], [9, 2]) }), thing("moth", { x: keyed([9, 2]) })]);
    selection.pickAll(["leaf", "moth"]);
    const shared = useSharedRows();
    const leaf = (row: number) => shared.value[row]!.leaf;
    expect([leaf(0), leaf(1)]).toEqual(["elsewhere", "none"]);
    usePlayback().goTo(9);
    expect(leaf(0)).toBe("here");
  });
});
