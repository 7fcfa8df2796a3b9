/** Putting points on a path, and going on from its end. */
import type { Edit } from "@/api/types";
import { type PathPoints, PIXEL } from "@/composables/path/usePathPoints";
import { inverse, moved, type Point, rounded } from "@/geometry/matrix";
import { lensOf } from "@/picture/lens";
import { usePicks } from "@/stores/picks";
import { usePlayback } from "@/stores/playback";
import { useScene } from "@/stores/scene";
import { useSelection } from "@/stores/selection";

/** Frames from one point to the next, where points are put down one after the other. */
const APART = 12;

export function usePathGrowing(toPicture: (event: PointerEvent | MouseEvent) => Point, { keys, space }: PathPoints) {
  const scene = useScene();
  const selection = useSelection();
  const picks = usePicks();
  const playback = usePlayback();

  /** Put a point on the path, at the whole frame whose dot is nearest to a place of the picture. */
  async function putOn(event: PointerEvent): Promise<void> {
    const place = scene.motion?.objects.get(selection.objectId ?? "")?.place;
    const [first, last] = [keys.value[0]?.frame, keys.value.at(-1)?.frame];
    if (!place || first === undefined || last === undefined) return;
    const home = inverse(lensOf(scene.motion, selection.objectId ?? "", playback.frame));
    if (!home) return;
    const at = moved(home, toPicture(event));
    let best = { frame: -1, far: Infinity };
    for (let frame = Math.ceil(first); frame <= Math.min(last, place.rows - 1); frame++) {
      const far = Math.hypot((place.data[frame * 2] ?? 0) - at.x, (place.data[frame * 2 + 1] ?? 0) - at.y);
      if (far < best.far) best = { frame, far };
    }
    if (best.frame < 0 || keys.value.some((key) => key.frame === best.frame)) return;
    await add({ edit: "set-key", object: selection.objectId ?? "", channel: "path", frame: best.frame });
  }

  /** Go on from the end of the path to a place of the picture, or begin one there. */
  async function goOnTo(event: PointerEvent): Promise<void> {
    const home = inverse(space.value);
    if (!home || !selection.object) return;
    const last = keys.value.at(-1);
    const at = moved(home, toPicture(event));
    const frame = last
      ? Math.max(Math.ceil(last.frame) + 1, playback.frame > last.frame ? playback.frame : last.frame + APART)
      : playback.frame;
    await add({
      edit: "set-key",
      object: selection.object.id,
      channel: "path",
      frame,
      value: [rounded(at.x, PIXEL), rounded(at.y, PIXEL)],
    });
    // While a path is drawn, what is chosen next is meant for all.
    picks.clear();
  }

  async function add(edit: Extract<Edit, { edit: "set-key" }>): Promise<void> {
    if (await scene.edit([edit])) picks.set([{ object: edit.object, channel: "path", frames: [edit.frame] }]);
  }

  return { putOn, goOnTo };
}
