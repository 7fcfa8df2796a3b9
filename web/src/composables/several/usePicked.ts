/** Which objects are meant when something is done to all that are picked. */
import { isCamera } from "@/api/kinds";
import type { SceneObject } from "@/api/types";
import { withParts } from "@/picture/boxes";
import { usePlayback } from "@/stores/playback";
import { useScene } from "@/stores/scene";
import { useSelection } from "@/stores/selection";

export function usePicked() {
  const scene = useScene();
  const selection = useSelection();
  const playback = usePlayback();

  /** Which they are, where the playhead is, and whether what has no keys shall get some. */
  const together = () => ({ objects: [...selection.picked], frame: playback.frame, key: selection.keyAsIMove });
  /** The picked ones that are attached to no other of them. */
  function tops(): SceneObject[] {
    const under = new Set(selection.picked.flatMap((id) => withParts(id, scene.parts).slice(1)));
    return selection.picked.flatMap((id) => (under.has(id) ? [] : (scene.byId.get(id) ?? [])));
  }
  /** Selected objects that can be moved, rotated and scaled: neither locked nor a camera. */
  const free = (): string[] => selection.picked.filter((id) => !scene.locked.has(id) && !isCamera(scene.byId.get(id)));
  /** The same as `together`, of those that are free. */
  const handled = () => ({ ...together(), objects: free() });

  return { together, tops, free, handled };
}
