/** Editing the points of the picked object's outline in the picture. */
import { useOutlineActions } from "@/composables/outline/useOutlineActions";
import { useOutlinePoints } from "@/composables/outline/useOutlinePoints";
import { usePointBox } from "@/composables/outline/usePointBox";
import { usePointDrag } from "@/composables/outline/usePointDrag";
import { usePointMeeting } from "@/composables/outline/usePointMeeting";
import type { Snapping } from "@/composables/picture/useSnapping";
import type { Point } from "@/geometry/matrix";

export function useOutlineEdit(toPicture: (event: PointerEvent | MouseEvent) => Point, snapping: Snapping) {
  const shown = useOutlinePoints();
  const doing = useOutlineActions(shown);
  const { thing, found, points, following, space, scale } = shown;
  const { list, ends, onlyLooks, actions } = doing;
  return {
    thing,
    found,
    points,
    following,
    space,
    scale,
    list,
    ends,
    onlyLooks,
    actions,
    ...usePointDrag(toPicture, snapping, shown, doing),
    ...usePointBox(toPicture, shown),
    ...usePointMeeting(toPicture, shown, doing),
  };
}

export type OutlineEdit = ReturnType<typeof useOutlineEdit>;
