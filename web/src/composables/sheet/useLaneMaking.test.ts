import { describe, expect, it } from "vitest";
import type { BakedObject } from "@/api/motion";
import type { End } from "@/api/types";
import { endWords, useLaneMaking } from "@/composables/sheet/useLaneMaking";
import { useVocabulary } from "@/stores/vocabulary";
import { baked, keyed, rows, staged, thing } from "@/testing/stage";

const LOOP = { mode: "loop", times: null } as End;
const told = (channels: Record<string, ReturnType<typeof rows>>): BakedObject =>
  ({ channels, turns: { x: [24, 12], y: [24] }, contacts: [7] }) as unknown as BakedObject;

function lanes(x = keyed([0, 0], [2, 4])) {
  const leaf = thing("leaf", { x: { ...x, after: LOOP }, rotation: keyed([5, 1]) });
  staged([leaf]);
  baked({});
  const all = useVocabulary().rowsOf(leaf);
  return { leaf, all, making: useLaneMaking() };
}

describe("lanes of the time sheet", () => {
  it("of an object have all leaves, in the colour of what it is keyed in first", () => {
    const { leaf, all, making } = lanes();
    const keyedRows = all.filter((row) => ["Travel", "Rotation"].includes(row.name));
    const lane = making.objectLane(
      leaf,
      1,
      told({ x: rows(...Array.from({ length: 48 }, (_, n) => 2 * n)), y: rows(0) }),
      keyedRows,
    );
    expect([lane.frames, lane.family, lane.depth, lane.lone]).toEqual([[0, 2, 5], "travel", 1, false]);
    expect([lane.most, lane.contacts, lane.turns]).toEqual([2, [7], []]);
  });

  it("of a row have its leaves, its turns and what comes after them", () => {
    const { leaf, all, making } = lanes();
    const [travel, turning] = all.map((row) => making.rowLane(leaf, 0, told({}), row));
    expect([travel!.frames, travel!.channels, travel!.turns, travel!.after]).toEqual([
      [0, 2],
      ["x"],
      [12, 24],
      "loop ∞",
    ]);
    expect([turning!.lone, turning!.after, turning!.contacts]).toEqual([true, "", []]);
  });

  it("of a limb stand for all of its rows", () => {
    const { leaf, all, making } = lanes();
    const lane = making.partLane(leaf, 2, told({}), "Near leg", all.slice(0, 2));
    expect([lane.key, lane.part, lane.frames]).toEqual(["leaf part Near leg", "Near leg", [0, 2, 5]]);
  });

  it("tell ends in words", () => {
    const words = [{ mode: "hold", times: null }, LOOP, { mode: "ping-pong", times: 3 }].map((end) =>
      endWords(end as End),
    );
    expect(words).toEqual(["hold", "loop ∞", "ping-pong ×3"]);
  });
});
