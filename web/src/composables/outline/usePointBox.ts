/** Dragging a box over the points of an outline to pick them. */
import { shallowRef } from "vue";
import type { OutlinePointsShown } from "@/composables/outline/useOutlinePoints";
import { beginDrag } from "@/composables/useDrag";
import { moved, type Point } from "@/geometry/matrix";
import { useOutline } from "@/stores/outline";

export function usePointBox(
  toPicture: (event: PointerEvent | MouseEvent) => Point,
  { space, points }: OutlinePointsShown,
) {
  const outline = useOutline();
  /** Two opposite corners of the box, in the picture. */
  const box = shallowRef<{ readonly from: Point; readonly to: Point } | null>(null);

  /** Select the points in the box; with Shift, add them to the selection. */
  function beginBox(event: PointerEvent): void {
    const from = toPicture(event);
    const before = event.shiftKey ? [...outline.picked] : [];
    const move = (e: PointerEvent): void => {
      const to = toPicture(e);
      box.value = { from, to };
      const [left, right] = [Math.min(from.x, to.x), Math.max(from.x, to.x)];
      const [top, bottom] = [Math.min(from.y, to.y), Math.max(from.y, to.y)];
      const inside = points.value.filter(({ at }) => {
        const p = moved(space.value, at);
        return p.x >= left && p.x <= right && p.y >= top && p.y <= bottom;
      });
      outline.pick([...before, ...inside.map((one) => one.number)]);
    };
    const end = (): void => {
      if (!box.value && !event.shiftKey) outline.clear();
      box.value = null;
    };
    beginDrag(event, { move, end });
  }

  return { box, beginBox };
}
