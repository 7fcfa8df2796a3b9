/** Sliding picked leaves along the time sheet, by pointer or keyboard, over as many lanes as they lie on. */
import { ref } from "vue";
import type { Edit } from "@/api/types";
import type { Lane } from "@/composables/useLanes";
import { nearest } from "@/geometry/snapping";
import { usePlayback } from "@/stores/playback";
import { keysAt, type Picked, usePicks } from "@/stores/picks";
import { useScene } from "@/stores/scene";
import { useSelection } from "@/stores/selection";

/** How near, in pixels, a leaf comes before it snaps to a key of another lane or to the playhead. */
const REACH = 6;

export function useLeafDrag(perFrame: () => number, lanes: () => readonly Lane[]) {
  const scene = useScene();
  const selection = useSelection();
  const playback = usePlayback();
  const picks = usePicks();
  /** How far the picked leaves are being slid, while they are, and what they snapped to. */
  const sliding = ref<{ by: number; snapped: { frame: number; to: string } | null } | null>(null);

  const slideEdits = (keys: readonly Picked[], by: number): Edit[] => keys.map((picked): Edit => ({ edit: "move-keys", ...picked, by }));

  async function slide(by: number): Promise<void> {
    if (by === 0) return;
    const next = picks.moved((frame) => frame + by);
    if (await scene.edit(slideEdits(picks.keys, by))) picks.set(next);
  }

  /** What a leaf can snap to: keys that stay, and the playhead. */
  function targets(): { frame: number; to: string }[] {
    const held = new Set(picks.frames);
    const keys = new Set(lanes().flatMap((lane) => lane.frames).filter((frame) => !held.has(frame)));
    return [{ frame: playback.frame, to: "the playhead" }, ...[...keys].map((frame) => ({ frame, to: "a key" }))];
  }

  /** Pick the leaf of a lane as a click would. */
  function pickLeaf(lane: Lane, frame: number, more: boolean): void {
    const own = keysAt(lane.thing, lane.channels, new Set([frame]));
    const there = picks.hasAll(own);
    if (!more && !there) picks.set(own);
    else if (more && there) picks.remove(own);
    else if (more) picks.add(own);
    selection.pick(lane.thing.id, true);
    if (lane.row) selection.pickRow(lane.row.name, null, true);
  }

  function begin(event: PointerEvent, lane: Lane, frame: number): void {
    if (event.button !== 0) return;
    event.stopPropagation();
    pickLeaf(lane, frame, event.shiftKey);
    const keys = picks.keys;
    const snaps = targets();
    const from = event.clientX;
    const target = event.currentTarget as Element;
    target.setPointerCapture(event.pointerId);

    const move = (e: PointerEvent): void => {
      const free = (e.clientX - from) / perFrame();
      const found = e.altKey ? null : nearest(frame + free, snaps, REACH / perFrame());
      const by = e.altKey ? Number(free.toFixed(2)) : found ? found.frame - frame : Math.round(free);
      if (by === (sliding.value?.by ?? 0)) return;
      sliding.value = { by, snapped: found };
      void scene.lookAt(slideEdits(keys, by));
    };
    const end = (keep: boolean) => (): void => {
      const done = sliding.value;
      sliding.value = null;
      target.removeEventListener("pointermove", move as EventListener);
      target.removeEventListener("pointerup", up);
      target.removeEventListener("pointercancel", cancel);
      window.removeEventListener("keydown", escape, true);
      if (done && keep && done.by !== 0) void slide(done.by);
      else if (done) scene.letGo();
      else if (!event.shiftKey && keep) picks.set(keysAt(lane.thing, lane.channels, new Set([frame])));
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
    pickLeaf(lane, frame, false);
    void slide(by);
  }

  return { sliding, begin, nudge };
}
