/** Drawing a line from a point of an outline to the one of the next key that it shall go to. */
import { shallowRef } from "vue";
import type { OutlineActions } from "@/composables/outline/useOutlineActions";
import type { OutlinePointsShown } from "@/composables/outline/useOutlinePoints";
import { beginOwnDrag } from "@/composables/useDrag";
import { distance, inverse, moved, type Point } from "@/geometry/matrix";

/** How near the line must end to a point, px of the screen. */
const NEAR = 24;

export function usePointMeeting(
  toPicture: (event: PointerEvent | MouseEvent) => Point,
  { space, scale, kept, following }: OutlinePointsShown,
  { actions }: OutlineActions,
) {
  /** The line, in the object's own space, and the point it is over. */
  const meeting = shallowRef<{ readonly from: Point; readonly to: Point; readonly over: number | null } | null>(null);

  function beginMeeting(event: PointerEvent, number: number): void {
    const home = inverse(space.value);
    const mine = kept.value[number];
    if (!home || !mine) return;
    const move = (e: PointerEvent): void => {
      const to = moved(home, toPicture(e));
      const near = following.value
        .map((one) => ({ number: one.number, far: distance(one.at, to) }))
        .sort((a, b) => a.far - b.far)[0];
      meeting.value = { from: mine.at, to, over: near && near.far * scale.value < NEAR ? near.number : null };
    };
    const end = (keep: boolean): void => {
      const over = meeting.value?.over ?? null;
      meeting.value = null;
      if (keep && over !== null) void actions.meet(number, over);
    };
    beginOwnDrag(event, { move, end });
  }

  return { meeting, beginMeeting };
}
