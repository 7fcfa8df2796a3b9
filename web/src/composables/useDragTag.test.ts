import { describe, expect, it } from "vitest";
import { ref } from "vue";
import { useDragTag } from "@/composables/useDragTag";

describe("what is told beside a drag", () => {
  it("are the values it would have, below the lowest corner of the thing", () => {
    const drag = { values: ref<Record<string, number> | null>({ x: 12.04, rotation: 30, "scale.x": 1.5 }) };
    const path = { moving: ref(null) };
    const view = { onStage: (_: unknown, p: { x: number; y: number }) => ({ x: p.x, y: p.y + 100 }) };
    const tag = useDragTag(
      drag as never,
      path as never,
      view as never,
      ref([1, 0, 0, 1, 0, 0]) as never,
      ref({ left: 0, top: 0, right: 8, bottom: 4 }),
    );
    expect(tag.value).toEqual({ text: "x 12.0   turn 30.0°   wide 150.0 %", at: { x: 8, y: 104 } });
    drag.values.value = null;
    expect(tag.value).toBeNull();
  });
});
