/** What can be grabbed of the picked object in the picture, and what it is like when it is. */
import { valuesAt, writtenAt } from "@/api/motion";
import { type Point, toMatrix } from "@/geometry/matrix";
import { carrierOf } from "@/picture/boxes";
import type { Held } from "@/picture/drags";
import { usePlayback } from "@/stores/playback";
import { useScene } from "@/stores/scene";
import { useSelection } from "@/stores/selection";

export type Grip = { kind: "move" } | { kind: "turn" } | { kind: "pivot" } | { kind: "scale"; corner: Point };

/** The row of values that a grip changes. */
export const ROW: Record<Grip["kind"], string> = { move: "Travel", turn: "Rotation", scale: "Size", pivot: "Pivot" };

export function useGrips() {
  const scene = useScene();
  const selection = useSelection();
  const playback = usePlayback();

  /** The selected object at the playhead. */
  function held(): Held | null {
    const motion = scene.motion;
    const thing = selection.object;
    const baked = thing && motion?.objects.get(thing.id);
    if (!motion || !baked) return null;
    const now = Object.entries(baked.channels).filter(([, array]) => array.width === 1);
    return {
      values: Object.fromEntries(now.map(([name, array]) => [name, writtenAt(array, playback.frame)])),
      parent: carrierOf(motion, thing, playback.frame),
      view: toMatrix(valuesAt(baked.view, playback.frame)),
    };
  }

  async function putPivot(id: string, to: Record<string, number>): Promise<void> {
    await scene.edit([{ edit: "move-pivot", id, frame: playback.frame, x: to["pivot.x"] ?? 0, y: to["pivot.y"] ?? 0 }]);
  }

  return { held, putPivot };
}
