/** What a point of the picture is on, and what a click there picks. */
import type { Point } from "@/geometry/matrix";
import { topmostAt } from "@/picture/boxes";
import { usePlayback } from "@/stores/playback";
import { useScene } from "@/stores/scene";
import { useSelection } from "@/stores/selection";
import { useVocabulary } from "@/stores/vocabulary";

/** How near to something a press is on it, in pixels of the screen. */
const NEAR = 5;

/** `scale`: pixels of the screen for each of the picture. */
export function usePicturePicking(at: (event: PointerEvent | MouseEvent) => Point, scale: () => number) {
  const [scene, selection, playback, vocabulary] = [useScene(), useSelection(), usePlayback(), useVocabulary()];

  /** The whole that a part belongs to, as groups and figures are. */
  function wholeOf(id: string): string {
    const parent = scene.parentOf(id);
    const above = parent ? scene.byId.get(parent) : undefined;
    return above && vocabulary.kindWordsOf(above)?.is_whole ? wholeOf(above.id) : id;
  }

  /** What a click picks: the whole that a part belongs to, unless a part of it is being worked on already. */
  function pickable(id: string): string {
    const whole = wholeOf(id);
    const current = selection.objectId;
    return current && current !== whole && wholeOf(current) === whole ? id : whole;
  }

  const reach = (): number => NEAR / scale();

  /** The foremost object at a point of the picture; locked objects are skipped. */
  const foremost = (point: Point): string | null =>
    scene.motion ? topmostAt(scene.motion, playback.frame, point, reach(), scene.locked) : null;

  /** The object under the pointer, as a click would select it. */
  function underPointer(event: PointerEvent | MouseEvent): string | null {
    const found = foremost(at(event));
    return found && (onPicked(found) ? selection.objectId : pickable(found));
  }

  /** Whether an object belongs to what is picked already, so that a drag moves that. */
  const onPicked = (found: string): boolean => selection.objectId !== null && isOn(found, selection.objectId);

  /** Whether an object is another, or is attached to it. */
  function isOn(found: string, other: string): boolean {
    for (let id: string | null = found; id; id = scene.parentOf(id)) if (id === other) return true;
    return false;
  }

  return { pickable, foremost, underPointer, onPicked, isOn, reach };
}

export type PicturePicking = ReturnType<typeof usePicturePicking>;
