/** Bringing picture files into the scene: one by one with progress, numbered ones as flipbooks. */
import { shallowRef } from "vue";
import { api } from "@/api/client";
import { newId } from "@/api/ids";
import type { Edit, KeptPicture } from "@/api/types";
import type { Point } from "@/geometry/matrix";
import { runsOf, saidNumbers } from "@/geometry/numbered";
import { usePlayback } from "@/stores/playback";
import { useScene } from "@/stores/scene";
import { useSelection } from "@/stores/selection";

interface Brought {
  readonly pictures: readonly KeptPicture[];
  readonly seconds: number | null;
}
/** What is being brought in, and what came of it; shared, so that every way in shows the same. */
const progress = shallowRef<{ readonly done: number; readonly total: number; readonly name: string } | null>(null);
const said = shallowRef<readonly string[]>([]);
/** Files dropped before their scene was open: it takes them as soon as it is. */
export const later = shallowRef<readonly File[]>([]);
/** On twos, as drawings are animated. */
const FRAMES_A_PAGE = 2;
const withoutSuffix = (name: string): string => name.replace(/\.[^.]*$/, "") || "Picture";
const plain = (name: string): string => name.replace(/[{}@]/g, "").slice(0, 70) || "Picture";

export function useBringIn() {
  const scene = useScene();
  const selection = useSelection();
  const playback = usePlayback();

  /** The pages of some files, in order; those that cannot be read are told of. */
  async function read(files: readonly File[]): Promise<Map<File, Brought>> {
    const found = new Map<File, Brought>();
    for (const [done, file] of files.entries()) {
      progress.value = { done, total: files.length, name: file.name };
      try {
        found.set(file, await api.bringPicture(file));
      } catch (error) {
        said.value = [...said.value, error instanceof Error ? error.message : `${file.name} could not be read.`];
      }
    }
    progress.value = null;
    return found;
  }

  /** Put files into the scene, each as an object of its own, numbered ones as one flipbook. */
  async function bring(files: readonly File[], at?: Point): Promise<void> {
    if (!files.length || !scene.head) return;
    said.value = [];
    const { runs, single } = runsOf(files);
    const brought = await read([...runs.flatMap((run) => run.files), ...single]);
    const [width, height] = scene.head.size;
    const place = at ?? { x: width / 2, y: height / 2 };
    const edits: Edit[] = [];
    const add = (name: string, pictures: readonly KeptPicture[], pace: number): void => {
      if (!pictures.length) return;
      edits.push({
        edit: "add-picture",
        id: newId(),
        name: plain(name),
        pictures: [...pictures],
        x: Math.round(place.x) + 24 * edits.length,
        y: Math.round(place.y) + 24 * edits.length,
        frames_a_page: pace,
        first: playback.frame,
      });
    };
    const told: string[] = [];
    for (const run of runs) {
      const pictures = run.files.flatMap((file) => brought.get(file)?.pictures ?? []);
      add(run.name, pictures, FRAMES_A_PAGE);
      told.push(`${run.name}: ${pictures.length} pages${run.gaps.length ? `, without ${saidNumbers(run.gaps)}` : ""}.`);
    }
    for (const file of single) {
      const one = brought.get(file);
      if (one)
        add(
          withoutSuffix(file.name),
          one.pictures,
          one.seconds ? Math.max(0.1, one.seconds * playback.fps) : FRAMES_A_PAGE,
        );
    }
    const odd = single.filter((file) => brought.has(file)).map((file) => file.name);
    if (runs.length && odd.length)
      told.push(
        `Not numbered like the others, so by ${odd.length === 1 ? "itself" : "themselves"}: ${odd.join(", ")}.`,
      );
    said.value = [...said.value, ...told];
    const [first] = edits;
    if (edits.length && (await scene.edit(edits)) && first?.edit === "add-picture") selection.pick(first.id);
  }

  return { progress, said, read, bring, forget: () => (said.value = []) };
}

/** The files that a drag brings, if it brings any. */
export const filesOf = (event: DragEvent): readonly File[] => [...(event.dataTransfer?.files ?? [])];
export const bringsFiles = (event: DragEvent): boolean => event.dataTransfer?.types.includes("Files") ?? false;
