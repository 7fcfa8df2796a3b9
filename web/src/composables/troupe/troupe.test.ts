/** New objects, and what can be done to those there are. */
import { describe, expect, it } from "vitest";
import type { Edit, TroupeObject } from "@/api/types";
import { isGivenName, newObject, nextColour } from "@/composables/troupe/kinds";
import { useAdding } from "@/composables/troupe/useAdding";
import { useTroupe } from "@/composables/troupe/useTroupe";
import { usePlayback } from "@/stores/playback";
import { dial, staged, thing } from "@/testing/stage";

const added = (edit: Edit | undefined): TroupeObject => (edit as unknown as { object: TroupeObject }).object;

describe("new objects", () => {
  it("take colours in turn, and are called by them", () => {
    const three = [0, 1, 6].map((count) => newObject("star", `s${count}`, { x: 1, y: 2 }, count));
    expect(three.map((one) => one.name)).toEqual(["Orange star", "Green star", "Orange star"]);
    expect(three[0]!.channels?.["fill"]?.base).toBe(nextColour(0).hex);
    expect(newObject("line", "l", { x: 0, y: 0 }).channels).toHaveProperty("stroke");
    expect(newObject("group", "g", { x: 3, y: 4 })).toMatchObject({ kind: "group", name: "Group" });
    expect(newObject("outline", "o", { x: 0, y: 0 }, 0, "M 0 0 L 1 1")).toMatchObject({ shape: { d: "M 0 0 L 1 1" } });
  });

  it("of text are called by their words until somebody names them", () => {
    expect(["Orange text", "Blue text 3", "Orange leaf", "Title"].map(isGivenName)).toEqual([true, true, false, false]);
  });

  it("come into the middle, picked and about to be named; a text about to be written", async () => {
    const { selection, edits } = staged([thing("leaf")]);
    const adding = useAdding();
    await adding.add("star");
    const star = added(edits[0]![0]);
    expect([star.channels?.["x"]?.base, star.channels?.["y"]?.base, star.name]).toEqual([320, 180, "Green star"]);
    expect([selection.objectId, selection.renaming, selection.writing]).toEqual([star.id, star.id, null]);
    await adding.add("text");
    expect(selection.writing).toBe(added(edits[1]![0]).id);
  });

  it("are one camera at most", async () => {
    const { scene, selection, edits } = staged([]);
    await useAdding().add("camera");
    expect(edits[0]).toMatchObject([{ edit: "add-camera", name: "Camera" }]);
    expect(scene.wholeStage).toBe(true);
    scene.objects = [{ ...thing("eye"), kind: "camera" } as unknown as TroupeObject];
    await useAdding().add("camera");
    expect([edits.length, selection.objectId]).toEqual([1, "eye"]);
  });

  it("of figures stand in the lower part of the picture", async () => {
    const { edits } = staged([]);
    await useAdding().addFigure("biped", "Postie", 300, true);
    expect(edits[0]).toMatchObject([
      { edit: "add-figure", starter: "biped", x: 160, y: 295, height: 300, drawn: true },
    ]);
  });
});

describe("objects of the troupe", () => {
  it("are copied in one step, and the copies are picked; dials are not", async () => {
    const { selection, edits } = staged([thing("leaf"), thing("moth")], { dials: [dial("wind", 1)] });
    await useTroupe().duplicate(["leaf", "dial:wind", "moth"]);
    const [edit] = edits[0] as unknown as [{ objects: string[]; prefix: string }];
    expect(edit).toMatchObject({ edit: "duplicate-objects", objects: ["leaf", "moth"] });
    expect([selection.objectId, ...selection.also]).toEqual([`${edit.prefix}-1`, `${edit.prefix}-2`]);
  });

  it("are picked one after the other, round and round", () => {
    const { selection } = staged([thing("back"), thing("middle"), thing("front")]);
    const { pickNext } = useTroupe();
    const picked = (by: 1 | -1) => (pickNext(by), selection.objectId);
    expect([picked(1), picked(1), picked(1), picked(1), picked(-1)]).toEqual([
      "front",
      "middle",
      "back",
      "front",
      "back",
    ]);
  });

  it("hang on others as they look at the playhead", async () => {
    const { edits } = staged([thing("leaf"), thing("twig")]);
    usePlayback().goTo(9);
    await useTroupe().hangOn("leaf", "twig");
    await useTroupe().lock(["leaf"], true);
    await useTroupe().tag(["leaf", "twig"], "#3D8B5F");
    expect(edits).toEqual([
      [{ edit: "reparent-object", id: "leaf", parent: "twig", keep_at: 9 }],
      [{ edit: "lock-objects", objects: ["leaf"], locked: true }],
      [{ edit: "tag-objects", objects: ["leaf", "twig"], tag: "#3D8B5F" }],
    ]);
  });
});
