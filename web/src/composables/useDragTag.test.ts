import { describe, expect, it } from "vitest";
import { nextTick, ref, shallowRef } from "vue";
import { useDragTag } from "@/composables/useDragTag";
import { IDENTITY, type Matrix } from "@/geometry/matrix";

function dragged(looking = false) {
  const values = shallowRef<Record<string, number> | null>({ x: 12.04, rotation: 30, "scale.x": 1.5 });
  const matrix = shallowRef<Matrix | null>(IDENTITY);
  const view = { onStage: (_: unknown, p: { x: number; y: number }) => ({ x: p.x, y: p.y + 100 }) };
  const box = ref({ left: 0, top: 0, right: 8, bottom: 4 });
  const drag = { values } as never;
  const tag = useDragTag(drag, { moving: ref(null) } as never, view as never, matrix, box as never, () => looking);
  return { values, matrix, tag };
}

describe("what is told beside a drag", () => {
  it("are the values it would have, below the lowest corner of the thing", async () => {
    const { values, tag } = dragged();
    expect(tag.value).toEqual({ text: "x 12.0   turn 30.0°   wide 150.0 %", at: { x: 8, y: 104 } });
    values.value = { x: 14 };
    await nextTick();
    expect(tag.value?.text).toBe("x 14.0");
    values.value = null;
    await nextTick();
    expect(tag.value).toBeNull();
  });

  it("comes with the picture of these values, if there will be one, and goes at once", async () => {
    const { values, matrix, tag } = dragged(true);
    values.value = { x: 14 };
    await nextTick();
    expect(tag.value?.text).toContain("x 12.0");
    matrix.value = [...IDENTITY];
    await nextTick();
    expect(tag.value?.text).toBe("x 14.0");
    values.value = null;
    await nextTick();
    expect(tag.value).toBeNull();
  });
});
