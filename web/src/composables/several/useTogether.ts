/** Several picked objects in the picture: the box around them, the pivot they share, and drags of both. */
import { computed, shallowRef } from "vue";
import { beginOwnDrag } from "@/composables/useDrag";
import { useSeveral } from "@/composables/several/useSeveral";
import { difference, type Point, rounded } from "@/geometry/matrix";
import { beginSizing, beginTurning, boundsOf, type Change, middleOf } from "@/geometry/together";
import { cornersOf } from "@/picture/boxes";
import { usePlayback } from "@/stores/playback";
import { useScene } from "@/stores/scene";
import { useSelection } from "@/stores/selection";

export type TogetherGrip = { kind: "turn" } | { kind: "size"; corner: Point } | { kind: "pivot" };

export function useTogether() {
  const scene = useScene();
  const selection = useSelection();
  const playback = usePlayback();
  const several = useSeveral();

  /** The corners of each of them that can be moved. */
  const outlines = computed(() => {
    const motion = scene.motion;
    if (!motion || !selection.several) return [];
    return selection.picked.flatMap((id) => {
      const points = cornersOf(motion, id, playback.frame, scene.parts);
      return points ? [{ id, points, locked: scene.locked.has(id) }] : [];
    });
  });
  const box = computed(() => boundsOf(outlines.value.flatMap((one) => (one.locked ? [] : one.points))));
  const pivot = computed(() => selection.commonPivot ?? (box.value && middleOf(box.value)));
  /** What a drag does right now, for showing it beside the pointer. */
  const doing = shallowRef<Change | null>(null);
  /** While something is dragged, the box and the pivot stay as they were: the look of it moves what they follow. */
  const held = shallowRef<{ pivot: Point } | null>(null);

  /** Turn or size all of them about the pivot, as one step. */
  async function change(what: Change): Promise<void> {
    if (pivot.value && several.free().length) await scene.edit([several.changeEdit(pivot.value, what)]);
  }

  function begin(press: PointerEvent, grip: TogetherGrip, toPicture: (event: PointerEvent) => Point): void {
    const about = pivot.value;
    if (!about) return;
    playback.pause();
    if (grip.kind === "pivot") {
      const put = ({ x, y }: Point): void => void (selection.commonPivot = { x: rounded(x, 0.1), y: rounded(y, 0.1) });
      beginOwnDrag(press, { move: (event) => put(toPicture(event)) });
      return;
    }
    selection.pickRow(grip.kind === "turn" ? "Rotation" : "Size");
    const from = toPicture(press);
    // A corner is taken a little outside of the box: it follows the pointer from where it is.
    const off = grip.kind === "size" ? difference(from, grip.corner) : { x: 0, y: 0 };
    const drag = grip.kind === "turn" ? beginTurning(about, from) : beginSizing(about, grip.corner);
    const begun = beginOwnDrag(press, {
      move: (event) => {
        doing.value = drag(difference(toPicture(event), off), event.shiftKey);
        void scene.lookAt([several.changeEdit(about, doing.value)]);
      },
      end: (kept) => {
        const made = doing.value;
        doing.value = held.value = null;
        if (!made) return;
        if (kept) void scene.edit([several.changeEdit(about, made)]);
        else scene.letGo();
      },
    });
    if (begun) held.value = { pivot: about };
  }

  return { outlines, box, pivot: computed(() => held.value?.pivot ?? pivot.value), doing, change, begin };
}
