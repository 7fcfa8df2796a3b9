/**
 * Snapping in the picture: what is moved comes to lie on thirds, quarters, centre, edges, the grid, or in line with
 * other objects.
 */
import { shallowRef } from "vue";
import { valuesAt } from "@/api/motion";
import { type Guide, type Guides, pictureGuides, snapTo } from "@/geometry/snapping";
import { moved, type Point } from "@/geometry/matrix";
import { cornersOf, withParts } from "@/picture/boxes";
import { usePlayback } from "@/stores/playback";
import { lensOf } from "@/picture/lens";
import { useScene } from "@/stores/scene";
import { useSelection } from "@/stores/selection";

/** How near, in pixels of the screen, something comes before it snaps. */
const REACH = 6;
/** More objects than this are a thicket in which everything is in line with something. */
const MOST_OTHERS = 60;

interface Extent {
  readonly xs: readonly number[];
  readonly ys: readonly number[];
}

export function useSnapping(scale: () => number) {
  const scene = useScene();
  const selection = useSelection();
  const playback = usePlayback();
  /** The guides something lies on at the moment. */
  const shown = shallowRef<{ upright: Guide | null; level: Guide | null }>({ upright: null, level: null });

  /** The left, middle and right of an object in the picture, and its top, middle and bottom. */
  function extentOf(id: string): Extent | null {
    const points = scene.motion && cornersOf(scene.motion, id, playback.frame, scene.parts);
    if (!points) return null;
    const three = (list: number[]): number[] => [
      Math.min(...list),
      (Math.min(...list) + Math.max(...list)) / 2,
      Math.max(...list),
    ];
    return { xs: three(points.map((p) => p.x)), ys: three(points.map((p) => p.y)) };
  }

  function guidesFor(id: string | null): Guides {
    const picture = pictureGuides(scene.motion?.size ?? [1280, 720], selection.snap);
    const own = new Set(id === null ? [] : withParts(id, scene.parts));
    for (let at = scene.byId.get(id ?? "")?.parent; at; at = scene.byId.get(at)?.parent) own.add(at);
    const others = scene.objects.filter((one) => !own.has(one.id) && !scene.motion?.hidden.has(one.id));
    if (others.length > MOST_OTHERS) return picture;
    const lines = others.flatMap((one) => {
      const found = extentOf(one.id);
      return found ? [{ name: one.name, found }] : [];
    });
    return {
      upright: [...picture.upright, ...lines.flatMap(({ name, found }) => found.xs.map((at) => ({ at, says: name })))],
      level: [...picture.level, ...lines.flatMap(({ name, found }) => found.ys.map((at) => ({ at, says: name })))],
    };
  }

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
      const x =
        steady && !sideways
          ? null
          : snapTo(
              xs.map((at) => at + dx),
              guides.upright,
              reach,
            );
      const y =
        steady && sideways
          ? null
          : snapTo(
              ys.map((at) => at + dy),
              guides.level,
              reach,
            );
      shown.value = { upright: x?.guide ?? null, level: y?.guide ?? null };
      [dx, dy] = [dx + (x?.by ?? 0), dy + (y?.by ?? 0)];
      return { x: from.x + dx, y: from.y + dy };
    };
  }

  /** Where a single point comes to lie; things other than its own object's guide it. */
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
