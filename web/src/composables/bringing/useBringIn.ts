/** Bringing files into the scene: pictures, numbered ones as flipbooks; drawings, scenes, sounds, tables and keys. */
import { api } from "@/api/client";
import type { Work } from "@/api/work";
import { isScene } from "@/geometry/fileNames";
import { attempt, progress, report, said, table } from "@/composables/bringing/state";
import { useBringPictures } from "@/composables/bringing/useBringPictures";
import { useBringScenes } from "@/composables/bringing/useBringScenes";
import { useBringSounds } from "@/composables/bringing/useBringSounds";
import type { Point } from "@/geometry/matrix";
import { useScene } from "@/stores/scene";

const SOUNDS = /\.(wav|mp3|ogg|oga|opus|flac|m4a|aac)$/i;
const TABLES = /\.(csv|tsv|txt)$/i;

export function useBringIn() {
  const scene = useScene();
  const { read, bringPictures } = useBringPictures();
  const { bringScene } = useBringScenes();
  const { bringSound, bringLevels } = useBringSounds();

  /**
   * Put files into the scene, at a place or in its middle: pictures as objects of their own, numbered ones as one
   * flipbook; drawings and scenes as groups; tables as keys.
   */
  async function bring(given: readonly File[], at?: Point): Promise<void> {
    if (!given.length || !scene.head) return;
    said.value = [];
    const [width, height] = scene.head.size;
    const place = at ?? { x: width / 2, y: height / 2 };
    const pictures: File[] = [];
    for (const file of given) {
      if (isScene(file.name)) await attempt(file, (work) => bringScene(file, place, work));
      else if (TABLES.test(file.name)) await attempt(file, (work) => bringTable(file, work));
      else if (SOUNDS.test(file.name)) await attempt(file, (work) => bringSound(file, work));
      else pictures.push(file);
    }
    if (pictures.length) await bringPictures(pictures, place);
  }

  async function bringTable(file: File, work: Work): Promise<void> {
    table.value = { name: file.name, words: await api.bringTable(file, work), sound: null };
  }

  return { progress, said, report, table, read, bring, bringLevels, forget: () => (said.value = []) };
}
