/** What objects in the picture snap to: lines of the picture, and those of other objects. */
import { type Guides, pictureGuides } from "@/geometry/snapping";
import { cornersOf, withParts } from "@/picture/boxes";
import { usePlayback } from "@/stores/playback";
import { useScene } from "@/stores/scene";
import { useSelection } from "@/stores/selection";

/** More objects than this are a thicket in which everything is in line with something. */
const MOST_OTHERS = 60;

export interface Extent {
  readonly xs: readonly number[];
  readonly ys: readonly number[];
}

export function useGuides() {
  const scene = useScene();
  const selection = useSelection();
  const playback = usePlayback();

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

  /** The guides for an object: those of its parent and of its own parts are none. */
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

  return { extentOf, guidesFor };
}
