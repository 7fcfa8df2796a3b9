import { describe, expect, it } from "vitest";
import type { SceneObject } from "@/api/types";
import { chainEdits, retimeEdit } from "@/composables/rules/ruleEdits";

describe("edits that put rules on objects", () => {
  it("let each link of a chain follow the one before it, the first the leader", () => {
    const edits = chainEdits("head", ["neck", "tail"], "rotation", {
      delay: 3,
      share: 0.5,
      spring: null,
      damping: 0.3,
    });
    const rules = edits.map((edit) => (edit.edit === "add-rule" ? [edit.object, edit.rule.settings?.["leader"]] : []));
    expect(rules).toEqual([
      ["neck", "head"],
      ["tail", "neck"],
    ]);
    expect(edits[0]).toMatchObject({ rule: { channels: ["rotation"], settings: { delay: { base: 3 } } } });
    expect(new Set(edits.map((edit) => edit.edit === "add-rule" && edit.rule.id)).size).toBe(2);
  });

  it("give links springs where they are wanted, and no setting of one where they are not", () => {
    const how = { delay: 1, share: 1, damping: 0.2 };
    const [stiff] = chainEdits("a", ["b"], "x", { ...how, spring: null });
    const [sprung] = chainEdits("a", ["b"], "x", { ...how, spring: 2 });
    expect(stiff).not.toHaveProperty("rule.settings.spring");
    expect(sprung).toMatchObject({ rule: { settings: { spring: { base: 2 }, damping: { base: 0.2 } } } });
  });

  it("play keys later and slower by one rule after all others", () => {
    const edit = retimeEdit({ id: "moth" } as SceneObject, "keyed", { delay: 6, speed: 0.5 }, "r1");
    expect(edit).toMatchObject({
      edit: "add-rule",
      object: "moth",
      rule: { id: "r1", kind: "retime", channels: "keyed" },
    });
    expect(edit).not.toHaveProperty("index");
  });
});
