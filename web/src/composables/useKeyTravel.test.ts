import { expect, it } from "vitest";
import { useKeyTravel } from "@/composables/useKeyTravel";
import { usePlayback } from "@/stores/playback";
import { keyed, staged, thing } from "@/testing/stage";

it("goes from key to key of the picked object, of its row, or of all", () => {
  const { selection } = staged([
    thing("leaf", { x: keyed([0, 1], [10.4, 2]), rotation: keyed([4, 0]) }),
    thing("moth", { y: keyed([7, 1]) }),
  ]);
  const [playback, { toKey, frames }] = [usePlayback(), useKeyTravel()];
  const gone = (...steps: (() => void)[]) => steps.map((step) => (step(), playback.frame));
  const [on, back] = [() => toKey(1), () => toKey(-1)];
  expect(frames.value).toEqual([0, 4, 7, 10.4]);
  expect(gone(on, on, on, on, back)).toEqual([4, 7, 10, 10, 7]);
  selection.pick("leaf");
  expect(gone(back, back, back, on)).toEqual([4, 0, 0, 4]);
  expect(gone(() => toKey(1, true), () => toKey(-1, true))).toEqual([10, 0]); // prettier-ignore
});
