/** Bringing files into the scene: pictures one by one with progress, numbered ones as flipbooks; drawings, scenes, tables and keys. */
import { shallowRef } from "vue";
import { api } from "@/api/client";
import { newId } from "@/api/ids";
import type { Edit, KeptPicture, KeptSound, TableWords } from "@/api/types";
import type { Point } from "@/geometry/matrix";
import { runsOf, rangesText } from "@/geometry/numbered";
import { usePlayback } from "@/stores/playback";
import { useScene } from "@/stores/scene";
import { useMessages } from "@/stores/messages";
import { useSelection } from "@/stores/selection";
import { useSounds } from "@/stores/sounds";

interface Brought {
  readonly pictures: readonly KeptPicture[];
  readonly seconds: number | null;
}
/** What is being brought in, and what came of it; shared, so that every way in shows the same. */
const progress = shallowRef<{ readonly done: number; readonly total: number; readonly name: string } | null>(null);
const said = shallowRef<readonly string[]>([]);
/** What came of a drawing or a scene that was brought in, for as long as it is looked at. */
export interface Report {
  readonly name: string;
  readonly parts: readonly { readonly id: string; readonly name: string; readonly depth: number }[];
  readonly lost: readonly string[];
}
const report = shallowRef<Report | null>(null);
/** A table that waits to be told which of its columns goes where. */
const table = shallowRef<{
  readonly name: string;
  readonly words: TableWords;
  readonly sound: KeptSound | null;
} | null>(null);
const SCENES = /\.(svg|json|vine)$/i;
const SOUNDS = /\.(wav|mp3|ogg|oga|opus|flac|m4a|aac)$/i;
const TABLES = /\.(csv|tsv|txt)$/i;
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
  const sounds = useSounds();
  const sayings = useMessages();

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

  /** Put files into the scene: pictures as objects of their own, numbered ones as one flipbook; drawings and scenes as groups; tables as keys. */
  async function bring(given: readonly File[], at?: Point): Promise<void> {
    if (!given.length || !scene.head) return;
    said.value = [];
    const files = given.filter((file) => ![SCENES, TABLES, SOUNDS].some((kind) => kind.test(file.name)));
    for (const file of given) {
      if (SCENES.test(file.name)) await attempt(file, () => bringScene(file, at));
      else if (TABLES.test(file.name)) await attempt(file, () => bringTable(file));
      else if (SOUNDS.test(file.name)) await attempt(file, () => bringSound(file));
    }
    if (!files.length) return;
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
      told.push(`${run.name}: ${pictures.length} pages${run.gaps.length ? `, without ${rangesText(run.gaps)}` : ""}.`);
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

  /** Do something with a file, and tell of what is wrong with it. */
  async function attempt(file: File, work: () => Promise<void>): Promise<void> {
    progress.value = { done: 0, total: 1, name: file.name };
    try {
      await work();
    } catch (error) {
      said.value = [...said.value, error instanceof Error ? error.message : `${file.name} could not be read.`];
    } finally {
      progress.value = null;
    }
  }

  /** Put a drawing, or all objects of a scene, into this one; or take keys over from a file of keys. */
  async function bringScene(file: File, at?: Point): Promise<void> {
    const keys = /\.json$/i.test(file.name) ? keysIn(await file.text()) : null;
    if (keys) {
      if (await scene.edit([{ edit: "bring-keys", tracks: keys }])) said.value = [`${file.name}: its keys are here.`];
      return;
    }
    const { scene: parcel, lost } = await api.bringDrawing(file);
    const [width, height] = scene.head!.size;
    const middle = at ?? { x: width / 2, y: height / 2 };
    const prefix = newId().slice(0, 12);
    const place = { x: Math.round(middle.x - parcel.size[0] / 2), y: Math.round(middle.y - parcel.size[1] / 2) };
    if (!(await scene.edit([{ edit: "place-parcel", parcel, prefix, hang: {}, frame: playback.frame, ...place }])))
      return;
    const depths = new Map<string, number>();
    const parts = parcel.objects.map((one) => {
      depths.set(one.id, one.parent ? (depths.get(one.parent) ?? 0) + 1 : 0);
      return { id: `${prefix}-${one.id}`.slice(0, 64), name: one.name, depth: depths.get(one.id)! };
    });
    selection.pick(parts[0]!.id);
    report.value = { name: file.name, parts, lost };
  }

  async function bringTable(file: File): Promise<void> {
    table.value = { name: file.name, words: await api.bringTable(file), sound: null };
  }

  /** Keep a sound with the scene; of a scene inside another, with the outermost. */
  async function bringSound(file: File): Promise<void> {
    if (scene.whole) {
      said.value = [
        ...said.value,
        `${file.name}: sounds are heard with the whole scene; go out to ${scene.whole.name}.`,
      ];
      return;
    }
    const found = await api.bringSound(file);
    await sounds.add(found);
    if (found.cut) said.value = [...said.value, `${file.name} is very long: only its first 20 minutes are used.`];
  }

  /** How loud a sound is and its beats, as a table that is read at the pace of the scene. */
  async function bringLevels(one: KeptSound): Promise<void> {
    const words = await sayings.attempt(() => api.soundTable(one.file, playback.fps));
    if (words) table.value = { name: one.name, words, sound: one };
  }

  return { progress, said, report, table, read, bring, bringLevels, forget: () => (said.value = []) };
}

/** The tracks in a file of keys; null where it is none. */
function keysIn(text: string): Extract<Edit, { edit: "bring-keys" }>["tracks"] | null {
  try {
    const data = JSON.parse(text) as { format?: unknown; tracks?: unknown };
    return data.format === "vine-swing-keys" && Array.isArray(data.tracks) ? data.tracks : null;
  } catch {
    return null;
  }
}

/** The files that a drag brings, if it brings any. */
export const filesOf = (event: DragEvent): readonly File[] => [...(event.dataTransfer?.files ?? [])];
export const bringsFiles = (event: DragEvent): boolean => event.dataTransfer?.types.includes("Files") ?? false;
