/** The points of the picked object's path, and the handles of its bent pieces. */
import { computed } from "vue";
import type { Key } from "@/api/types";
import type { Matrix, Point } from "@/geometry/matrix";
import { carrierOf } from "@/picture/boxes";
import { usePicks } from "@/stores/picks";
import { usePlayback } from "@/stores/playback";
import { useScene } from "@/stores/scene";
import { useSelection } from "@/stores/selection";

export type Pair = readonly [number, number];
export interface PathHandle {
  readonly key: Key;
  readonly side: "out" | "in";
  readonly at: Pair;
}

/** What coordinates of paths are rounded to, px. */
export const PIXEL = 0.1;

export function usePathPoints() {
  const scene = useScene();
  const selection = useSelection();
  const picks = usePicks();
  const playback = usePlayback();

  const keys = computed(() => selection.keysOf("path"));
  /** From the space the path is in to the picture, at the playhead. */
  const space = computed((): Matrix => carrierOf(scene.motion, selection.thing, playback.frame));
  const isPicked = (key: Key): boolean => picks.has(selection.objectId ?? "", "path", key.frame);
  const pointOf = (key: Key): Point =>
    Array.isArray(key.value) ? { x: key.value[0], y: key.value[1] } : { x: 0, y: 0 };

  /** How the path goes on from its key number i. */
  const wayOf = (i: number): string => {
    const [key, next] = [keys.value[i], keys.value[i + 1]];
    if (!key || !next) return "straight";
    return key.way ?? (key.ease === "spline" ? "spline" : key.out || next.in ? "bezier" : "straight");
  };

  const handles = computed((): PathHandle[] =>
    keys.value.flatMap((key, i) => {
      const third = (to: Key): Pair => [(pointOf(to).x - pointOf(key).x) / 3, (pointOf(to).y - pointOf(key).y) / 3];
      const [before, after] = [keys.value[i - 1], keys.value[i + 1]];
      const out: PathHandle[] =
        after && wayOf(i) === "bezier" ? [{ key, side: "out", at: key.out ?? third(after) }] : [];
      const into: PathHandle[] =
        before && wayOf(i - 1) === "bezier" ? [{ key, side: "in", at: key.in ?? third(before) }] : [];
      return [...out, ...into];
    }),
  );

  return { keys, space, handles, isPicked, pointOf, wayOf };
}

export type PathPoints = ReturnType<typeof usePathPoints>;
