/** Picking objects with a box drawn in the picture: those that lie wholly in it. */
import { shallowRef } from "vue";
import { beginDrag } from "@/composables/useDrag";
import type { Point } from "@/geometry/matrix";
import { cornersOf } from "@/picture/boxes";
import { usePlayback } from "@/stores/playback";
import { useScene } from "@/stores/scene";
import { useSelection } from "@/stores/selection";

/** How far, in pixels, a press goes before it draws a box. */
const SLACK = 4;

export function useObjectBox(toPicture: (event: PointerEvent) => Point) {
  const scene = useScene();
  const selection = useSelection();
  const playback = usePlayback();
  /** Two corners of the box, in px of the picture. */
  const shown = shallowRef<readonly [Point, Point] | null>(null);

  /** The boxes in the picture of what a click can pick as a whole. */
  function boxes(): { id: string; points: readonly Point[] }[] {
    const motion = scene.motion;
    if (!motion) return [];
    return scene.wholes
      .filter((one) => !motion.hidden.has(one.id) && !scene.locked.has(one.id))
      .flatMap(({ id }) => {
        const points = cornersOf(motion, id, playback.frame, scene.parts);
        return points ? [{ id, points }] : [];
      });
  }

  function begin(press: PointerEvent): void {
    const [from, all, before] = [toPicture(press), boxes(), press.shiftKey ? selection.picked : []];
    beginDrag(press, {
      move: (event) => {
        if (!shown.value && Math.hypot(event.clientX - press.clientX, event.clientY - press.clientY) < SLACK) return;
        const to = toPicture(event);
        shown.value = [from, to];
        const [left, right] = [Math.min(from.x, to.x), Math.max(from.x, to.x)];
        const [top, bottom] = [Math.min(from.y, to.y), Math.max(from.y, to.y)];
        const within = all.filter(({ points }) =>
          points.every((p) => p.x >= left && p.x <= right && p.y >= top && p.y <= bottom),
        );
        selection.pickAll([...new Set([...before, ...within.map((one) => one.id).reverse()])]);
      },
      end: () => (shown.value = null),
    });
  }

  return { shown, begin };
}
