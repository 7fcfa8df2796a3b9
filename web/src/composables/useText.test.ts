import { describe, expect, it } from "vitest";
import type { TextShape } from "@/api/types";
import { textOf, useText } from "@/composables/useText";
import { usePlayback } from "@/stores/playback";
import { baked, keyed, rows, staged, thing } from "@/testing/stage";

const plain = () => staged([thing("title", {}, { type: "text", text: "Closed", name: "Orange text" })]);
const WORDS = keyed([0, { text: "Closed" }], [2, { text: "Open" }]);
function said() {
  const all = staged([thing("title", { text: WORDS }, { type: "text", text: "Closed" })]);
  baked({ title: { text: rows(0, 0, 1, 1) } });
  return all;
}

describe("a text", () => {
  it("is changed in its shape, and called by its words until it has a name", async () => {
    const { edits, scene } = plain();
    expect(textOf(scene.byId.get("title"))?.text).toBe("Closed");
    await useText().set("title", { text: "Mail {number}\nand more" });
    const shape = edits[0]![0] as unknown as { shape: TextShape };
    expect(shape.shape.text).toBe("Mail {number}\nand more");
    expect(edits[0]![1]).toEqual({ edit: "rename-object", id: "title", name: "Mail number" });
  });

  it("is left alone where nothing differs", async () => {
    const { edits, looks } = plain();
    await useText().set("title", { text: "Closed", weight: 400 });
    expect([edits, looks]).toEqual([[], [[]]]);
  });

  it("says at each frame what its keys say, and is keyed there where other words are written", async () => {
    const { edits, scene } = said();
    const text = useText();
    const title = () => scene.byId.get("title")!;
    expect(text.saidBy(title())).toBe("Closed");
    usePlayback().goTo(3);
    expect(text.saidBy(title())).toBe("Open");
    await text.set("title", { text: "Open" });
    expect(edits).toEqual([]);
    await text.set("title", { text: "Back soon" });
    expect(edits).toEqual([
      [{ edit: "set-key", object: "title", channel: "text", frame: 3, value: { text: "Back soon" } }],
    ]);
    await text.set("title", { weight: 700 });
    expect(edits[1]![0]).toMatchObject({ edit: "set-shape", id: "title", shape: { weight: 700, text: "Closed" } });
  });

  it("shows what is written before it is kept", () => {
    const { looks } = said();
    useText().show("title", { text: "Ba" });
    expect(looks.at(-1)).toEqual([
      { edit: "set-key", object: "title", channel: "text", frame: 0, value: { text: "Ba" } },
    ]);
  });
});
