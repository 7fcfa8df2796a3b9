/**
 * Snapping in the picture: moved objects snap to thirds, quarters, centre, edges, the grid, or in line with
 * other objects.
 */
import { shallowRef } from "vue";
import { valuesAt } from "@/api/motion";
import { useGuides } from "@/composables/picture/useGuides";
import { type Guide, snapTo } from "@/geometry/snapping";
import { moved, type Point } from "@/geometry/matrix";
import { usePlayback } from "@/stores/playback";
import { lensOf } from "@/picture/lens";
import { useScene } from "@/stores/scene";
import { useSelection } from "@/stores/selection";

/** How near, in pixels of the screen, something comes before it snaps. */
const REACH = 6;
export function useSnapping(scale: () => number) {
  const scene = useScene();
  const selection = useSelection();
  const playback = usePlayback();
  const { extentOf, guidesFor } = useGuides();
  /** The guides something is on at the moment. */
  const shown = shallowRef<{ upright: Guide | null; level: Guide | null }>({ upright: null, level: null });

  /**
   * Begin to move an object. What comes back turns the pointer's place into the one that snaps; null where nothing
   * snaps.
   */
  function begin(id: string): ((from: Point, to: Point, steady: boolean) => Point) | null {
    const extent = selection.snap.on ? extentOf(id) : null;
    if (!extent) return null;
    const guides = guidesFor(id);
    const place = scene.motion?.objects.get(id)?.place;
    const [px = 0, py = 0] = place ? valuesAt(place, playback.frame) : [];
    const pivot = place ? moved(lensOf(scene.motion, id, playback.frame), { x: px, y: py }) : null;
    const [xs, ys] = [
      [...extent.xs, pivot?.x ?? extent.xs[1]!],
      [...extent.ys, pivot?.y ?? extent.ys[1]!],
    ];
    return (from, to, steady) => {
      let [dx, dy] = [to.x - from.x, to.y - from.y];
      const sideways = Math.abs(dx) >= Math.abs(dy);
      const reach = REACH / scale();
      const snapped = (at: readonly number[], by: number, lines: readonly Guide[]) =>
        snapTo(
          at.map((one) => one + by),
          lines,
          reach,
        );
      const x = steady && !sideways ? null : snapped(xs, dx, guides.upright);
      const y = steady && sideways ? null : snapped(ys, dy, guides.level);
      shown.value = { upright: x?.guide ?? null, level: y?.guide ?? null };
      [dx, dy] = [dx + (x?.by ?? 0), dy + (y?.by ?? 0)];
      return { x: from.x + dx, y: from.y + dy };
    };
  }

  /** Where a single point comes to lie; objects other than its own object's guide it. */
  function point(at: Point, id: string | null): Point {
    if (!selection.snap.on) return at;
    const guides = guidesFor(id);
    const x = snapTo([at.x], guides.upright, REACH / scale());
    const y = snapTo([at.y], guides.level, REACH / scale());
    shown.value = { upright: x?.guide ?? null, level: y?.guide ?? null };
    return { x: at.x + (x?.by ?? 0), y: at.y + (y?.by ?? 0) };
  }

  function end(): void {
    if (shown.value.upright || shown.value.level) shown.value = { upright: null, level: null };
  }

  return { shown, begin, point, end };
}

export type Snapping = ReturnType<typeof useSnapping>;
