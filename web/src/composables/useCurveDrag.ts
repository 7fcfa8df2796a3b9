/** Dragging keys and handles in the curve view. */
import { shallowRef } from "vue";
import type { Edit, Key } from "@/api/types";
import { useScene } from "@/stores/scene";
import { useSelection } from "@/stores/selection";

export interface CurveScale {
  readonly perFrame: number;
  /** Pixels per unit of value. */
  readonly perValue: number;
  /** What values are rounded to. */
  readonly step: number;
}

export type CurveGrip = { kind: "key"; key: Key } | { kind: "out" | "in"; key: Key; at: readonly [number, number]; other: readonly [number, number] | null };

export function useCurveDrag(scale: () => CurveScale) {
  const scene = useScene();
  const selection = useSelection();
  /** What is held, where it is now: a key at (frame, value), or a handle as an offset from its key. */
  const held = shallowRef<{ kind: "key" | "out" | "in"; frame: number; at: [number, number] } | null>(null);

  function begin(event: PointerEvent, grip: CurveGrip): void {
    const thing = selection.thing;
    const channel = selection.channel?.name;
    if (event.button !== 0 || !thing || !channel) return;
    event.preventDefault();
    event.stopPropagation();
    if (grip.kind === "key") selection.leaves = new Set(event.shiftKey ? [...selection.leaves, grip.key.frame] : [grip.key.frame]);
    const from = { x: event.clientX, y: event.clientY };
    const target = event.currentTarget as Element;
    target.setPointerCapture(event.pointerId);
    let edits: Edit[] = [];
    let landed = grip.key.frame;

    const move = (e: PointerEvent): void => {
      const { perFrame, perValue, step } = scale();
      let [dx, dy] = [e.clientX - from.x, e.clientY - from.y];
      if (e.shiftKey) [dx, dy] = Math.abs(dx) >= Math.abs(dy) ? [dx, 0] : [0, dy];
      if (!edits.length && Math.hypot(dx, dy) < 3) return;
      const by = { frames: dx / perFrame, value: -dy / perValue };
      if (grip.kind === "key") {
        const frames = Math.round(by.frames);
        const value = Number((Math.round((Number(grip.key.value) + by.value) / step) * step).toFixed(4));
        landed = grip.key.frame + frames;
        edits = [{ edit: "set-key", object: thing.id, channel, frame: landed, value }];
        if (frames) edits.unshift({ edit: "move-keys", object: thing.id, channel, frames: [grip.key.frame], by: frames });
        held.value = { kind: "key", frame: grip.key.frame, at: [landed, value] };
      } else {
        const edit = handleEdit(thing.id, channel, grip, by, e.altKey);
        edits = [edit];
        held.value = { kind: grip.kind, frame: grip.key.frame, at: edit[grip.kind] as [number, number] };
      }
      void scene.lookAt(edits);
    };
    const end = async (): Promise<void> => {
      target.removeEventListener("pointermove", move as EventListener);
      if (edits.length && (await scene.edit(edits)) && grip.kind === "key") selection.leaves = new Set([landed]);
      held.value = null;
    };
    target.addEventListener("pointermove", move as EventListener);
    target.addEventListener("pointerup", () => void end(), { once: true });
  }

  return { held, begin };
}

/** Where a dragged handle goes; its partner swings along on the other side of the key, unless it is broken off. */
function handleEdit(object: string, channel: string, grip: Extract<CurveGrip, { kind: "out" | "in" }>, by: { frames: number; value: number }, broken: boolean): Extract<Edit, { edit: "set-handles" }> {
  const round = (value: number): number => Number(value.toFixed(3));
  const sign = grip.kind === "out" ? 1 : -1;
  const frames = sign * Math.max(0.01, sign * (grip.at[0] + by.frames));
  const moved: [number, number] = [round(frames), round(grip.at[1] + by.value)];
  const edit: Extract<Edit, { edit: "set-handles" }> = { edit: "set-handles", object, channel, frame: grip.key.frame, [grip.kind]: moved };
  if (broken || !grip.other) return edit;
  const slope = moved[1] / moved[0];
  const partner: [number, number] = [grip.other[0], round(grip.other[0] * slope)];
  return { ...edit, [grip.kind === "out" ? "in" : "out"]: partner };
}
