/** Bringing sounds in, and reading how loud they are as a table. */
import { api } from "@/api/client";
import type { KeptSound } from "@/api/types";
import type { Work } from "@/api/work";
import { say, table } from "@/composables/bringing/state";
import { useMessages } from "@/stores/messages";
import { usePlayback } from "@/stores/playback";
import { useScene } from "@/stores/scene";
import { useSounds } from "@/stores/sounds";

export function useBringSounds() {
  const scene = useScene();
  const playback = usePlayback();
  const sounds = useSounds();
  const messages = useMessages();

  /** Keep a sound with the scene; of a scene inside another, with the outermost. */
  async function bringSound(file: File, work: Work): Promise<void> {
    if (scene.whole) {
      say(`${file.name}: sounds are heard with the whole scene; go out to ${scene.whole.name}.`);
      return;
    }
    const found = await api.bringSound(file, work);
    await sounds.add(found);
    if (found.cut) say(`${file.name} is very long: only its first 20 minutes are used.`);
  }

  /** How loud a sound is and its beats, as a table that is read at the pace of the scene. */
  async function bringLevels(one: KeptSound): Promise<void> {
    const words = await messages.attempt(() => api.soundTable(one.file, playback.fps));
    if (words) table.value = { name: one.name, words, sound: one };
  }

  return { bringSound, bringLevels };
}
