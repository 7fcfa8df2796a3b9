import { describe, expect, it, vi } from "vitest";
import { api } from "@/api/client";
import { useElements } from "@/composables/useElements";
import { staged } from "@/testing/stage";

vi.mock("@/api/client", async (original) => ({ ...(await original<object>()), api: {} }));

describe("a ready element", () => {
  it("is put into the middle of the picture, and what holds it together is picked with its parts shown", async () => {
    const { selection, edits } = staged([]);
    const objects = [
      { id: "bell", parent: null },
      { id: "clapper", parent: "bell" },
    ];
    Object.assign(api, { elementFile: async () => JSON.stringify({ objects }) });
    expect(await useElements().putIn({ name: "bell", width: 100, height: 60 } as never)).toBe(true);
    const [{ prefix, ...edit }] = edits[0] as unknown as [{ prefix: string }];
    expect(edit).toEqual({ edit: "add-objects", objects, x: 270, y: 150 });
    expect([selection.objectId, selection.unfolded.has(`${prefix}-bell`)]).toEqual([`${prefix}-bell`, true]);
  });
});
