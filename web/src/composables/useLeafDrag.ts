/** Sliding picked leaves along the time sheet, by pointer or keyboard. */
import { ref } from "vue";
import type { Edit } from "@/api/types";
import { keysAt } from "@/composables/useLeafActions";
import type { Lane } from "@/composables/useLanes";
import { useScene } from "@/stores/scene";
import { useSelection } from "@/stores/selection";

export function useLeafDrag(perFrame: () => number) {
  const scene = useScene();
  const selection = useSelection();
  /** How many frames the picked leaves are being slid, while they are. */
  const sliding = ref<{ lane: string; frames: ReadonlySet<number>; by: number } | null>(null);

  const rowNameOf = (lane: Lane): string => lane.row?.name ?? selection.rowName;

  /** The edits that slide all keys of a lane that lie on some frames. */
  function slideEdits(lane: Lane, frames: ReadonlySet<number>, by: number): Edit[] {
    return keysAt(lane.thing, lane.channels, frames).map((picked): Edit => ({ edit: "move-keys", ...picked, by }));
  }

  async function slide(lane: Lane, frames: ReadonlySet<number>, by: number): Promise<void> {
    if (by === 0) return;
    if (await scene.edit(slideEdits(lane, frames, by))) selection.leaves = new Set([...frames].map((frame) => frame + by));
  }

  function begin(event: PointerEvent, lane: Lane, frame: number): void {
    if (event.button !== 0) return;
    event.stopPropagation();
    const same = selection.objectId === lane.thing.id && (!lane.row || selection.rowName === lane.row.name);
    if (!(same && selection.leaves.has(frame) && !event.shiftKey)) selection.pickLeaf(lane.thing.id, rowNameOf(lane), frame, event.shiftKey);
    const frames = selection.leaves.has(frame) ? selection.leaves : new Set([frame]);
    const from = event.clientX;
    const target = event.currentTarget as Element;
    target.setPointerCapture(event.pointerId);

    const move = (e: PointerEvent): void => {
      const by = Math.round((e.clientX - from) / perFrame());
      if (by === (sliding.value?.by ?? 0)) return;
      sliding.value = { lane: lane.key, frames, by };
      void scene.lookAt(slideEdits(lane, frames, by));
    };
    const end = (keep: boolean) => (): void => {
      const done = sliding.value;
      sliding.value = null;
      target.removeEventListener("pointermove", move as EventListener);
      target.removeEventListener("pointerup", up);
      target.removeEventListener("pointercancel", cancel);
      window.removeEventListener("keydown", escape, true);
      if (done && keep && done.by !== 0) void slide(lane, frames, done.by);
      else if (done) scene.letGo();
    };
    const up = end(true);
    const cancel = end(false);
    const escape = (e: KeyboardEvent): void => {
      if (e.key !== "Escape") return;
      e.stopPropagation();
      cancel();
    };
    target.addEventListener("pointermove", move as EventListener);
    target.addEventListener("pointerup", up);
    target.addEventListener("pointercancel", cancel);
    window.addEventListener("keydown", escape, true);
  }

  /** Slide the picked leaves by some frames from the keyboard. */
  function nudge(lane: Lane, frame: number, by: number): void {
    const frames = selection.objectId === lane.thing.id && selection.leaves.has(frame) ? selection.leaves : new Set([frame]);
    selection.pickLeaf(lane.thing.id, rowNameOf(lane), frame, false);
    void slide(lane, frames, by);
  }

  return { sliding, begin, nudge };
}
