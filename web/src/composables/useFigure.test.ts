import { describe, expect, it } from "vitest";
import { still } from "@/api/channels";
import { useFigure } from "@/composables/useFigure";
import { useVocabulary } from "@/stores/vocabulary";
import { keyed, staged, thing, VOCABULARY } from "@/testing/stage";

const limb = (id: string, kind: string) => ({ id, name: id, kind, side: "near" });
const walker = (legs: number, settings: object = {}) =>
  thing("postie", {}, {
    kind: "figure",
    figure: { spine: [], head: [], limbs: Array.from({ length: legs }, (_, n) => limb(`leg-${n}`, "leg")), chains: [] },
    rules: [{ id: "walk", kind: "gait", on: true, channels: "keyed", settings }],
  } as never);

describe("the picked figure", () => {
  it("is the figure itself, or the one that the picked part hangs on by a bone", () => {
    const { selection } = staged([
      walker(2),
      thing("hat", {}, { parent: "postie", bone: "head.1" }),
      thing("cart", {}, { parent: "postie" }),
    ]);
    const { figure } = useFigure();
    expect(figure.value).toBeNull();
    for (const id of ["postie", "hat"]) {
      selection.pick(id);
      expect(figure.value?.id).toBe("postie");
    }
    selection.pick("cart");
    expect(figure.value, "it hangs on the whole, and is no part of the body").toBeNull();
  });

  it("has the gaits for as many pairs of legs as it has, and a gait whose settings are read and set", async () => {
    const { selection, edits } = staged([walker(4, { stride: still(90), bob: keyed([0, 1]), order: "wave" })]);
    const gaits = [
      { name: "stroll", pairs: [1] },
      { name: "trot", pairs: [2] },
    ];
    useVocabulary().words = { ...VOCABULARY, gaits } as never;
    selection.pick("postie");
    const figure = useFigure();
    expect(figure.gaits.value.map((one) => one.name)).toEqual(["trot"]);
    expect([figure.number("stride"), figure.number("lift"), figure.word("order")]).toEqual([90, null, "wave"]);
    await figure.set("stride", 120);
    await figure.choose("trot");
    await figure.freeze(4, 12);
    expect(edits.map(([one]) => one)).toMatchObject([
      { edit: "set-setting", object: "postie", rule: "walk", setting: "stride", value: 120 },
      { edit: "set-gait", id: "postie", preset: "trot", frame: 0 },
      { edit: "freeze-walk", first: 4, last: 12 },
    ]);
  });
});
