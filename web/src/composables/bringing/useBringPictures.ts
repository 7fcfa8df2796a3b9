/** Bringing pictures in: each as an object of its own, numbered ones as the pages of one flipbook. */
import { api } from "@/api/client";
import { newId } from "@/api/ids";
import type { Edit, KeptPicture } from "@/api/types";
import { Work } from "@/api/work";
import { plainName, withoutSuffix } from "@/geometry/fileNames";
import { isStopped, progress, say, sayWrong } from "@/composables/bringing/state";
import type { Point } from "@/geometry/matrix";
import { rangesText, runsOf } from "@/geometry/numbered";
import { usePlayback } from "@/stores/playback";
import { useScene } from "@/stores/scene";
import { useSelection } from "@/stores/selection";

interface Brought {
  readonly pictures: readonly KeptPicture[];
  readonly seconds: number | null;
}

/** On twos, as drawings are animated. */
const FRAMES_A_PAGE = 2;
/** How far beside the one before each further picture is put, px. */
const ASIDE = 24;

export function useBringPictures() {
  const scene = useScene();
  const selection = useSelection();
  const playback = usePlayback();

  /** Read the pages of some files in order, and say which cannot be read. If the user stops one, none is kept. */
  async function read(files: readonly File[]): Promise<Map<File, Brought>> {
    const found = new Map<File, Brought>();
    for (const [done, file] of files.entries()) {
      const work = new Work();
      progress.value = { done, total: files.length, name: file.name, work };
      try {
        found.set(file, await api.bringPicture(file, work));
      } catch (error) {
        sayWrong(file, error);
        if (isStopped(error)) {
          found.clear();
          break;
        }
      }
    }
    progress.value = null;
    return found;
  }

  async function bringPictures(files: readonly File[], place: Point): Promise<void> {
    const { runs, single } = runsOf(files);
    const brought = await read([...runs.flatMap((run) => run.files), ...single]);
    const edits: Edit[] = [];
    const add = (name: string, pictures: readonly KeptPicture[], pace: number): void => {
      if (!pictures.length) return;
      edits.push({
        edit: "add-picture",
        id: newId(),
        name: plainName(name) || "Picture",
        pictures: [...pictures],
        x: Math.round(place.x) + ASIDE * edits.length,
        y: Math.round(place.y) + ASIDE * edits.length,
        frames_a_page: pace,
        first: playback.frame,
      });
    };
    for (const run of runs) {
      const pictures = run.files.flatMap((file) => brought.get(file)?.pictures ?? []);
      add(run.name, pictures, FRAMES_A_PAGE);
      if (pictures.length)
        say(`${run.name}: ${pictures.length} pages${run.gaps.length ? `, without ${rangesText(run.gaps)}` : ""}.`);
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
      say(`Not numbered like the others, so by ${odd.length === 1 ? "itself" : "themselves"}: ${odd.join(", ")}.`);
    const [first] = edits;
    if (edits.length && (await scene.edit(edits)) && first?.edit === "add-picture") selection.pick(first.id);
  }

  return { read, bringPictures };
}
