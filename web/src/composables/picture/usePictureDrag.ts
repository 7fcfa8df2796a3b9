/** Dragging in the picture: the grabbed object, the preview, and the edit on release. */
import { ref, shallowRef } from "vue";
import { isCamera } from "@/api/kinds";
import { type Grip, ROW, useGrips } from "@/composables/picture/useGrips";
import { useNudging } from "@/composables/picture/useNudging";
import type { Snapping } from "@/composables/picture/useSnapping";
import { useTogetherDrag } from "@/composables/picture/useTogetherDrag";
import { useChanging } from "@/composables/useChanging";
import { beginDrag, SLACK } from "@/composables/useDrag";
import type { Point } from "@/geometry/matrix";
import { beginMove, beginPivot, beginScale, beginTurn, type Drag, type Held } from "@/picture/drags";
import { usePlayback } from "@/stores/playback";
import { useScene } from "@/stores/scene";
import { useSelection } from "@/stores/selection";

export function usePictureDrag(toPicture: (event: PointerEvent) => Point, snapping: Snapping) {
  const scene = useScene();
  const selection = useSelection();
  const playback = usePlayback();
  const changing = useChanging();
  const { held, putPivot } = useGrips();

  const active = ref<Grip["kind"] | null>(null);
  /** The values being dragged, for showing beside the pointer. */
  const values = shallowRef<Record<string, number> | null>(null);

  function begin(event: PointerEvent, grip: Grip): void {
    const start = held();
    const thing = selection.object;
    if (!start || !thing || event.button !== 0) return;
    event.preventDefault();
    event.stopPropagation();
    const from = toPicture(event);
    const press = { x: event.clientX, y: event.clientY };
    const drag = dragOf(grip, start, from);
    const snap = grip.kind === "move" ? snapping.begin(thing.id) : null;
    playback.pause();
    selection.pickRow(ROW[grip.kind]);

    const move = (e: PointerEvent): void => {
      if (!active.value && Math.hypot(e.clientX - press.x, e.clientY - press.y) < SLACK) return;
      active.value = grip.kind;
      const to = toPicture(e);
      const now = drag(snap && !e.altKey ? snap(from, to, e.shiftKey) : to, { steady: e.shiftKey });
      values.value = isCamera(thing) ? framed(now, start) : now;
      if (e.altKey) snapping.end();
      if (grip.kind !== "pivot") changing.show(thing, values.value);
    };
    const end = (kept: boolean): void => {
      const made = values.value;
      const was = active.value;
      active.value = null;
      values.value = null;
      snapping.end();
      if (!was || !made) return;
      if (!kept) scene.letGo();
      else if (grip.kind === "pivot") void putPivot(thing.id, made);
      else void changing.make(thing, made, true);
    };
    beginDrag(event, { move, end });
  }

  return { active, values, begin, ...useTogetherDrag(toPicture), ...useNudging() };
}

export type PictureDrag = ReturnType<typeof usePictureDrag>;

/** A camera whose frame is made larger looks from farther away. */
function framed(values: Record<string, number>, start: Held): Record<string, number> {
  const { "scale.x": wide, "scale.y": high, ...others } = values;
  if (wide === undefined || high === undefined) return values;
  const factor = Math.max(Math.abs(wide), Math.abs(high), 0.01);
  return { ...others, zoom: Number(((start.values["zoom"] ?? 1) / factor).toFixed(4)) };
}

function dragOf(grip: Grip, start: Held, from: Point): Drag {
  switch (grip.kind) {
    case "move":
      return beginMove(start, from);
    case "turn":
      return beginTurn(start, from);
    case "scale":
      return beginScale(start, grip.corner);
    case "pivot":
      return beginPivot(start);
  }
}
