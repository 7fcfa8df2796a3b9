/** Drawing new outlines in the picture: point by point, or freely. */
import { computed } from "vue";
import { rounder, useDrawnOutline } from "@/composables/picture/useDrawnOutline";
import { useFreeDrawing } from "@/composables/picture/useFreeDrawing";
import { beginDrag } from "@/composables/useDrag";
import type { Snapping } from "@/composables/picture/useSnapping";
import { difference, distance, type Point, straightened } from "@/geometry/matrix";
import { pathOf } from "@/geometry/outline";
import { useOutline } from "@/stores/outline";

/** How near to the first point, in pixels of the screen, closes an outline. */
const NEAR = 10;
const mirrored = (about: Point, p: Point): Point => ({ x: 2 * about.x - p.x, y: 2 * about.y - p.y });

export function useDrawing(
  toPicture: (event: PointerEvent | MouseEvent) => Point,
  scale: () => number,
  snapping: Snapping,
) {
  const outline = useOutline();
  const { keep } = useDrawnOutline();
  const { drawFreely } = useFreeDrawing(toPicture, scale);

  const first = computed(() => outline.drawn[0]?.at ?? null);
  const closes = (at: Point): boolean =>
    outline.drawn.length > 1 && first.value !== null && distance(at, first.value) < NEAR / scale();

  /** Where a new point comes to lie: snapped, and with Shift in one direction from the point before. */
  function placed(event: PointerEvent): Point {
    const at = toPicture(event);
    const before = outline.drawn.at(-1)?.at;
    if (event.shiftKey && before) {
      const by = straightened(difference(at, before));
      return rounder({ x: before.x + by.x, y: before.y + by.y });
    }
    return rounder(snapping.point(at, null));
  }

  function press(event: PointerEvent): void {
    // With Alt it is the other way just this once.
    if (outline.freely !== event.altKey && !outline.drawn.length) drawFreely(event);
    else putPoint(event);
  }

  function putPoint(event: PointerEvent): void {
    if (closes(toPicture(event))) {
      const [begun] = outline.drawn;
      const move = (e: PointerEvent): void => {
        const to = rounder(toPicture(e));
        if (begun && distance(to, begun.at) > 3 / scale())
          outline.drawn = [{ ...begun, into: mirrored(begun.at, to), out: begun.out }, ...outline.drawn.slice(1)];
      };
      beginDrag(event, { move, end: (kept) => void (kept && finish(true)) });
      return;
    }
    const at = placed(event);
    outline.drawn = [...outline.drawn, { at, into: null, out: null }];
    const before = outline.drawn.slice(0, -1);
    const move = (e: PointerEvent): void => {
      const to = toPicture(e);
      const by = e.shiftKey ? straightened(difference(to, at)) : difference(to, at);
      const out = rounder({ x: at.x + by.x, y: at.y + by.y });
      const pulled = distance(out, at) > 3 / scale();
      outline.drawn = [...before, pulled ? { at, into: mirrored(at, out), out } : { at, into: null, out: null }];
    };
    beginDrag(event, { move, end: (kept) => void (kept || (outline.drawn = before)) });
    snapping.end();
  }

  /** Keep what was drawn point by point. */
  async function finish(closed: boolean): Promise<void> {
    const points = outline.drawn;
    abandon();
    if (points.length > 1) await keep({ d: pathOf(points, closed) }, closed);
  }

  function abandon(): void {
    outline.drawn = [];
    outline.pointer = null;
    outline.hand = [];
  }

  /** Take the last point back. */
  const back = (): void => void (outline.drawn = outline.drawn.slice(0, -1));
  const hover = (event: PointerEvent): void => void (outline.pointer = outline.drawn.length ? placed(event) : null);

  return { press, hover, finish, back, abandon, closes };
}

export type Drawing = ReturnType<typeof useDrawing>;
