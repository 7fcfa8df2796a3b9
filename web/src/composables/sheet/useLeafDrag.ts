/** Sliding picked leaves along the time sheet, by pointer or keyboard, over as many lanes as they are on. */
import { beginDrag } from "@/composables/useDrag";
import { ref } from "vue";
import type { Edit } from "@/api/types";
import type { Lane } from "@/composables/sheet/useLaneMaking";
import { nearest } from "@/geometry/snapping";
import { usePlayback } from "@/stores/playback";
import { keysAt, type Picked, usePicks } from "@/stores/picks";
import { useScene } from "@/stores/scene";
import { useSelection } from "@/stores/selection";
import { useSounds } from "@/stores/sounds";

/** How near, in pixels, a leaf comes before it snaps to a key of another lane or to the playhead. */
const REACH = 6;

export function useLeafDrag(perFrame: () => number, lanes: () => readonly Lane[]) {
  const scene = useScene();
  const selection = useSelection();
  const playback = usePlayback();
  const picks = usePicks();
  const sounds = useSounds();
  /** How far the picked leaves are being slid, while they are, and what they snapped to. */
  const sliding = ref<{ by: number; snapped: { frame: number; to: string } | null } | null>(null);

  const slideEdits = (keys: readonly Picked[], by: number): Edit[] =>
    keys.map((picked): Edit => ({ edit: "move-keys", ...picked, by }));

  async function slide(by: number): Promise<void> {
    if (by === 0) return;
    const next = picks.moved((frame) => frame + by);
    if (await scene.edit(slideEdits(picks.keys, by))) picks.set(next);
  }

  /** What a leaf can snap to: the playhead, markers and beats, and keys that stay. */
  function targets(): { frame: number; to: string }[] {
    const held = new Set(picks.frames);
    const keys = new Set(
      lanes()
        .flatMap((lane) => lane.frames)
        .filter((frame) => !held.has(frame)),
    );
    return [
      { frame: playback.frame, to: "the playhead" },
      ...sounds.snaps,
      ...[...keys].map((frame) => ({ frame, to: "a key" })),
    ];
  }

  /** Pick the leaf of a lane as a click would. */
  function pickLeaf(lane: Lane, frame: number, more: boolean): void {
    const own = keysAt(lane.thing, lane.channels, new Set([frame]));
    const there = picks.hasAll(own);
    if (!more && !there) picks.set(own);
    else if (more && there) picks.remove(own);
    else if (more) picks.add(own);
    selection.pick(lane.thing.id, true);
    if (lane.row && !lane.part) selection.pickRow(lane.row.name, null, true);
  }

  function begin(event: PointerEvent, lane: Lane, frame: number): void {
    if (event.button !== 0) return;
    event.stopPropagation();
    pickLeaf(lane, frame, event.shiftKey);
    const keys = picks.keys;
    const snaps = targets();
    const from = event.clientX;

    const move = (e: PointerEvent): void => {
      const free = (e.clientX - from) / perFrame();
      const found = e.altKey ? null : nearest(frame + free, snaps, REACH / perFrame());
      const by = e.altKey ? Number(free.toFixed(2)) : found ? found.frame - frame : Math.round(free);
      if (by === (sliding.value?.by ?? 0)) return;
      sliding.value = { by, snapped: found };
      void scene.lookAt(slideEdits(keys, by));
    };
    const end = (kept: boolean): void => {
      const done = sliding.value;
      sliding.value = null;
      if (done && kept && done.by !== 0) void slide(done.by);
      else if (done) scene.letGo();
      else if (!event.shiftKey && kept) picks.set(keysAt(lane.thing, lane.channels, new Set([frame])));
    };
    beginDrag(event, { move, end });
  }

  /** Slide the picked leaves by some frames from the keyboard. */
  function nudge(lane: Lane, frame: number, by: number): void {
    pickLeaf(lane, frame, false);
    void slide(by);
  }

  return { sliding, begin, nudge };
}
