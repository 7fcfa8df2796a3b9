import { describe, expect, it } from "vitest";
import { NEW_PARADE } from "@/api/parades";
import type { TroupeObject } from "@/api/types";
import { useParade } from "@/composables/useParade";
import { usePlayback } from "@/stores/playback";
import { keyed, staged, thing } from "@/testing/stage";

const row = { ...thing("row"), kind: "parade", parade: { ...NEW_PARADE, columns: 3 } } as unknown as TroupeObject;

function scene() {
  const group = { ...thing("pair"), kind: "group" } as unknown as TroupeObject;
  const led = { ...thing("led", { path: keyed([0, [0, 0]], [9, [5, 5]]) }), kind: "group" } as unknown as TroupeObject;
  const all = staged([
    row,
    thing("leaf", {}, { parent: "row" }),
    thing("stem", {}, { parent: "leaf" }),
    thing("hill"),
    group,
    led,
  ]);
  all.selection.pick("row");
  return { ...all, parade: useParade() };
}

describe("the picked parade", () => {
  it("has all that hangs on it, and is changed as a whole", async () => {
    const { parade, edits, looks, selection } = scene();
    expect(parade.parts.value.map((one) => one.id)).toEqual(["leaf", "stem"]);
    await parade.set({ arrange: "ring" });
    parade.look({ arrange: "grid" });
    expect(edits[0]).toMatchObject([{ edit: "set-parade", id: "row", parade: { arrange: "ring", columns: 3 } }]);
    expect(looks[0]).toMatchObject([{ parade: { arrange: "grid", columns: 3 } }]);
    selection.pick("hill");
    expect([parade.thing.value, parade.parts.value, parade.set({ columns: 5 })]).toEqual([null, [], undefined]);
  });

  it("is made of what is picked, called after it, measured where the playhead is", () => {
    const { parade } = scene();
    usePlayback().goTo(7);
    expect(parade.making({ id: "p", parts: ["hill"], parade: { arrange: "row" }, values: { count: 4 } })).toMatchObject(
      {
        edit: "make-parade",
        name: "Hill parade",
        parts: ["hill"],
        frame: 7,
        parade: { measured_at: 7, arrange: "row" },
        values: { count: 4 },
      },
    );
  });

  it("can stand along what has an outline or a path, and is no parade or part of it", () => {
    const { parade } = scene();
    expect(parade.guidesFor(["leaf"]).map((one) => one.id)).toEqual(["stem", "hill", "led"]);
  });
});
