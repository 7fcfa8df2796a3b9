/** Dragging keys and handles in the curve view: one, or all that are picked. */
import { beginDrag, SLACK } from "@/composables/useDrag";
import { shallowRef } from "vue";
import {
  type CurveGrip,
  type CurveScale,
  handleEdit,
  type Offset,
  useCurveEdits,
} from "@/composables/curves/useCurveEdits";
import type { Edit } from "@/api/types";
import { type Picked, usePicks } from "@/stores/picks";
import { usePlayback } from "@/stores/playback";
import { nearest } from "@/geometry/snapping";
import { useScene } from "@/stores/scene";
import { useSelection } from "@/stores/selection";

/** What is held: how far keys have been moved, or where a handle is now. */
export type CurveHold =
  | { readonly kind: "key"; readonly frames: number; readonly pixels: number }
  | { readonly kind: "out" | "in"; readonly channel: string; readonly frame: number; readonly at: Offset };

/** How near a key comes to the playhead before it snaps to it, px. */
const REACH = 5;

export function useCurveDrag(scale: () => CurveScale) {
  const scene = useScene();
  const selection = useSelection();
  const playback = usePlayback();
  const picks = usePicks();
  const { keyEdits, others } = useCurveEdits(scale);
  const held = shallowRef<CurveHold | null>(null);

  function begin(event: PointerEvent, grip: CurveGrip): void {
    const thing = selection.thing;
    if (event.button !== 0 || !thing) return;
    event.preventDefault();
    event.stopPropagation();
    const own: Picked[] = [{ object: thing.id, channel: grip.channel, frames: [grip.key.frame] }];
    const was = picks.hasAll(own);
    if (event.shiftKey && grip.kind === "key") (was ? picks.remove : picks.add)(own);
    else if (!was) picks.set(own);
    const keys = picks.keys.filter((one) => one.object === thing.id);
    const from = { x: event.clientX, y: event.clientY };
    let edits: Edit[] = [];
    let by = 0;

    const move = (e: PointerEvent): void => {
      let [dx, dy] = [e.clientX - from.x, e.clientY - from.y];
      if (e.shiftKey) [dx, dy] = Math.abs(dx) >= Math.abs(dy) ? [dx, 0] : [0, dy];
      if (!edits.length && Math.hypot(dx, dy) < SLACK) return;
      if (grip.kind === "key") {
        const snapped =
          dx && !e.altKey
            ? nearest(grip.key.frame + dx / scale().perFrame, [{ frame: playback.frame }], REACH / scale().perFrame)
            : null;
        by = snapped
          ? snapped.frame - grip.key.frame
          : e.altKey
            ? Number((dx / scale().perFrame).toFixed(2))
            : Math.round(dx / scale().perFrame);
        edits = keys.flatMap((one) => keyEdits(one, by, dy));
        held.value = { kind: "key", frames: by, pixels: dy };
      } else {
        const frames = dx / scale().perFrame;
        const value = -dy / scale().perValue(grip.channel);
        const first = handleEdit(thing.id, grip, frames, value, e.altKey);
        edits = [first, ...others(grip, frames, value, e.altKey)];
        held.value = {
          kind: grip.kind,
          channel: grip.channel,
          frame: grip.key.frame,
          at: first[grip.kind] as [number, number],
        };
      }
      if (edits.length) void scene.lookAt(edits);
    };
    const end = async (kept: boolean): Promise<void> => {
      if (!kept) {
        held.value = null;
        if (edits.length) scene.letGo();
        return;
      }
      const next = grip.kind === "key" ? picks.moved((frame) => frame + by) : picks.keys;
      if (edits.length && (await scene.edit(edits))) picks.set(next);
      else if (!edits.length && was && !event.shiftKey) picks.set(own);
      held.value = null;
    };
    beginDrag(event, { move, end: (kept) => void end(kept) });
  }

  return { held, begin };
}
