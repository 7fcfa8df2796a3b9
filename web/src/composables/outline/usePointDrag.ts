/** Dragging the picked points of an outline in the picture, or a handle of one; and putting a new one on a piece. */
import type { Edit } from "@/api/types";
import { type OutlineActions, PIXEL } from "@/composables/outline/useOutlineActions";
import type { OutlinePointsShown } from "@/composables/outline/useOutlinePoints";
import { beginOwnDrag, SLACK } from "@/composables/useDrag";
import type { Snapping } from "@/composables/picture/useSnapping";
import { difference, inverse, length, moved, type Point, rounded, straightened, turned } from "@/geometry/matrix";
import { handleOf, type NumberedPoint, type Side } from "@/geometry/numberedPoints";
import { nearestOn } from "@/geometry/outline";
import { useOutline } from "@/stores/outline";
import { useScene } from "@/stores/scene";

export function usePointDrag(
  toPicture: (event: PointerEvent | MouseEvent) => Point,
  snapping: Snapping,
  { thing, scale, pull, space, points }: OutlinePointsShown,
  { make, movedBy, pose, form }: OutlineActions,
) {
  const scene = useScene();
  const outline = useOutline();

  function beginPoint(event: PointerEvent, one: NumberedPoint): void {
    const home = inverse(space.value);
    if (!home || event.button !== 0) return;
    if (event.shiftKey) outline.pick([one.number], true);
    else if (!outline.picked.has(one.number)) outline.pick([one.number]);
    if (!outline.picked.has(one.number)) return void event.stopPropagation();
    const from = toPicture(event);
    const start = moved(space.value, one.at);
    let edits: Edit[] = [];
    const move = (e: PointerEvent): void => {
      let whole = difference(toPicture(e), from);
      if (!edits.length && length(whole) * scale.value < SLACK) return;
      if (e.shiftKey) whole = straightened(whole);
      else {
        const to = { x: start.x + whole.x, y: start.y + whole.y };
        whole = difference(snapping.point(to, thing.value?.id ?? null), start);
      }
      const by = turned(home, whole);
      pull.value = { by, handle: null };
      edits = [movedBy(by)];
      void scene.lookAt(edits);
    };
    beginOwnDrag(event, { move, end: (keep) => void end(keep, edits) });
  }

  function beginHandle(event: PointerEvent, one: NumberedPoint, side: Side): void {
    const home = inverse(space.value);
    const handle = handleOf(one, side);
    if (!home || !handle || event.button !== 0) return;
    outline.pick([one.number]);
    const from = toPicture(event);
    let edits: Edit[] = [];
    const move = (e: PointerEvent): void => {
      const by = turned(home, difference(toPicture(e), from));
      // A corner with handles keeps them apart; Alt breaks those of a smooth point.
      const broken = e.altKey || !one.smooth;
      pull.value = { by, handle: { number: one.number, side, broken } };
      const to: [number, number] = [rounded(handle.x + by.x, PIXEL), rounded(handle.y + by.y, PIXEL)];
      edits = [{ edit: "set-point-handle", ...pose(), point: one.number, side, to, broken }];
      void scene.lookAt(edits);
    };
    beginOwnDrag(event, { move, end: (keep) => void end(keep, edits) });
  }

  async function end(keep: boolean, edits: Edit[]): Promise<void> {
    snapping.end();
    if (!edits.length) return;
    if (keep) {
      // The overlay stays where the hand released until the kept points arrive.
      if (!(await make(edits))) pull.value = null;
    } else {
      pull.value = null;
      scene.letGo();
    }
  }

  /** Put one more point on the piece that leaves a point, where the pointer is. */
  async function putOn(event: PointerEvent, one: NumberedPoint): Promise<void> {
    const [home, next] = [inverse(space.value), one.next === null ? null : points.value[one.next]];
    if (!home || !next || event.button !== 0) return;
    event.stopPropagation();
    event.preventDefault();
    const share = nearestOn(one, next, moved(home, toPicture(event)));
    if (await make([{ edit: "add-point", ...form(), after: one.number, share }])) outline.pick([one.number + 1]);
  }

  return { beginPoint, beginHandle, putOn };
}
