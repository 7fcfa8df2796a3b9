import { describe, expect, it } from "vitest";
import type { Drive } from "@/api/types";
import { useDeleting } from "@/stores/deleting";
import { useDrives } from "@/stores/drives";
import { said } from "@/testing/said";
import { dial, staged, thing } from "@/testing/stage";

const drive = (more: Partial<Drive>): Drive =>
  ({
    driver: { object: "post", channel: "x" },
    driven: { object: "leaf", channel: "x" },
    rule: "r1",
    setting: null,
    kind: "link",
    ...more,
  }) as Drive;

function scene() {
  const all = staged([thing("post"), thing("arm", {}, { parent: "post" }), thing("leaf")], {
    dials: [dial("wind", 1)],
  });
  return { ...all, deleting: useDeleting(), drives: useDrives() };
}

describe("deleting", () => {
  it("takes out what nobody reads at once, and offers to bring it back", async () => {
    const { deleting, edits, selection, scene: store } = scene();
    selection.pick("post");
    await deleting.ask(store.byId.get("post")!);
    expect(edits).toEqual([[{ edit: "delete-object", id: "post" }]]);
    expect(said.info).toEqual(["Post is deleted, with 1 on it."]);
    expect(selection.objectId).toBeNull();
  });

  it("takes out dials by their own edit", async () => {
    const { deleting, edits, scene: store } = scene();
    await deleting.ask(store.dials[0]!);
    expect(edits).toEqual([[{ edit: "delete-dial", id: "wind" }]]);
  });

  it("asks first where others read it, of parts too, and lets it be", async () => {
    const { deleting, drives, edits, scene: store } = scene();
    drives.all = [drive({ driver: { object: "arm", channel: "rotation" } })];
    await deleting.ask(store.byId.get("post")!);
    expect(edits).toEqual([]);
    expect(deleting.asked?.readers).toHaveLength(1);
    deleting.letBe();
    expect(deleting.asked).toBeNull();
  });

  it("freezes what reads it, each in its own way, and once", async () => {
    const { deleting, drives, edits, scene: store } = scene();
    drives.all = [
      drive({}),
      drive({ driven: { object: "leaf", channel: "opacity" } }),
      drive({ driven: { object: "leaf", channel: "fill" } }),
      drive({ rule: "r7", setting: "amplitude" }),
      drive({ rule: "r7", setting: "amplitude" }),
      drive({ kind: "gait" }),
      drive({ kind: "hold-on", driven: { object: "leaf", channel: "near-arm.x" } }),
    ];
    await deleting.ask(store.byId.get("post")!);
    await deleting.freezeThem();
    const frozen = { edit: "freeze-channel", object: "leaf" };
    expect(edits[0]).toEqual([
      { ...frozen, channel: "x", tolerance: 0.5 },
      { ...frozen, channel: "opacity", tolerance: 0.005 },
      { ...frozen, channel: "fill", tolerance: 0.01 },
      { ...frozen, channel: "r7:amplitude", tolerance: 0.5 },
      { edit: "freeze-walk", id: "leaf", first: 0, last: 47, tolerance: 0.05 },
      { ...frozen, channel: "near-arm.x", tolerance: 0.1 },
      { ...frozen, channel: "near-arm.y", tolerance: 0.1 },
      { ...frozen, channel: "near-arm.reach", tolerance: 0.005 },
      { edit: "delete-object", id: "post" },
    ]);
  });

  it("leaves what reads it as it is, if that is wanted", async () => {
    const { deleting, drives, edits, scene: store } = scene();
    drives.all = [drive({})];
    await deleting.ask(store.byId.get("post")!);
    await deleting.leaveThem();
    expect(edits).toEqual([[{ edit: "delete-object", id: "post" }]]);
  });
});
