/** Drawing outlines freely: where the hand goes, a line follows. */
import { rounder, useDrawnOutline } from "@/composables/picture/useDrawnOutline";
import { beginDrag } from "@/composables/useDrag";
import { distance, type Point } from "@/geometry/matrix";
import { thinned } from "@/geometry/outline";
import { useOutline } from "@/stores/outline";

const MOST_PLACES = 4_000;

export function useFreeDrawing(toPicture: (event: PointerEvent) => Point, scale: () => number) {
  const outline = useOutline();
  const { keep } = useDrawnOutline();

  function drawFreely(event: PointerEvent): void {
    outline.hand = [rounder(toPicture(event))];
    const move = (e: PointerEvent): void => {
      // All that the pointer reported since the last frame, so that quick strokes keep their shape.
      const all = e.getCoalescedEvents?.() ?? [];
      const places = (all.length ? all : [e]).map((one) => rounder(toPicture(one)));
      outline.hand = [...outline.hand, ...places];
    };
    beginDrag(event, { move, end: (kept) => void endFreely(kept) });
  }

  async function endFreely(kept: boolean): Promise<void> {
    const places = outline.hand;
    outline.hand = [];
    const [begin, end] = [places[0], places.at(-1)];
    const length = places.slice(1).reduce((sum, p, i) => sum + distance(p, places[i]!), 0);
    if (!kept || !begin || !end || length < 4) return;
    const closed = length > 60 && distance(begin, end) < 14 / scale();
    const hand = {
      places: thinned(places, MOST_PLACES).map((p): [number, number] => [p.x, p.y]),
      tolerance: outline.tolerance,
      closed,
    };
    await keep({ hand }, closed);
  }

  return { drawFreely };
}
