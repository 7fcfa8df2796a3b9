/** Deleting keys. */
import { ref } from "vue";
import { keysOf } from "@/api/channels";
import { deleteKeys, type Keep } from "@/api/edits";
import type { Edit } from "@/api/types";
import { type Picked, usePicks } from "@/stores/picks";
import { usePlayback } from "@/stores/playback";
import { useScene } from "@/stores/scene";

/** What is about to be deleted to the last key, while the page asks which value stays. */
const clearing = ref<{ name: string; picked: Picked[] } | null>(null);

export function useKeyRemoving() {
  const scene = useScene();
  const playback = usePlayback();
  const picks = usePicks();

  const isWhole = (one: Picked): boolean => {
    const thing = scene.byId.get(one.object);
    return Boolean(thing && one.frames.length > 1 && one.frames.length === keysOf(thing, one.channel).length);
  };

  /** Delete keys. Before a moving channel loses its last key, the page asks which value stays. */
  async function remove(which: readonly Picked[] = picks.keys): Promise<void> {
    if (which.some(isWhole)) {
      const names = [...new Set(which.map((one) => scene.byId.get(one.object)?.name ?? ""))];
      clearing.value = { name: names.length > 2 ? `${names.length} objects` : names.join(" and "), picked: [...which] };
      return;
    }
    await drop(which, "first");
  }

  const dropEdits = (which: readonly Picked[], keep: Keep): Edit[] =>
    which.map((one) => deleteKeys(one.object, one.channel, one.frames, keep, playback.frame));

  async function drop(which: readonly Picked[], keep: Keep): Promise<void> {
    if (await scene.edit(dropEdits(which, keep))) picks.clear();
  }

  return { clearing, remove, drop, dropEdits };
}
