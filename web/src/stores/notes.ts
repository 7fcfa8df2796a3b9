/** What the service remarks on the motion: asked for a moment after each change, never before it is kept. */
import { useDebounceFn } from "@vueuse/core";
import { defineStore } from "pinia";
import { computed, ref, shallowRef, watch } from "vue";
import { api, ServiceError } from "@/api/client";
import type { Edit, NotesState, NoteWords } from "@/api/types";
import { usePlayback } from "@/stores/playback";
import { useScene } from "@/stores/scene";
import { useSelection } from "@/stores/selection";
import { useVocabulary } from "@/stores/vocabulary";
import { usePanels } from "@/stores/panels";

/** How long nothing must change before the notes are asked for, ms. */
const QUIET = 350;

/** What tells a note from others, also after the scene has changed. */
export const keyOf = (note: NoteWords): string => `${note.kind} ${note.object} ${note.channel} ${note.frames}`;

export const useNotes = defineStore("notes", () => {
  const scene = useScene();
  const selection = useSelection();
  const playback = usePlayback();
  const vocabulary = useVocabulary();
  const panels = usePanels();

  const state = shallowRef<NotesState | null>(null);
  const open = panels.besideOf("notes");
  /** Whether they are being looked for. */
  const looking = ref(false);
  /** The note that is pointed at, or has the focus. */
  const pointed = shallowRef<NoteWords | null>(null);
  const list = computed(() => state.value?.notes ?? []);

  let asked = 0;
  const ask = useDebounceFn(async () => {
    const [id, number] = [scene.id, ++asked];
    if (!id) return;
    try {
      const found = await api.notes(id);
      if (number === asked && id === scene.id) state.value = found;
    } catch (error) {
      // They are remarks: where they cannot be had, nothing is said of it, and the next change asks again.
      if (!(error instanceof ServiceError)) throw error;
    } finally {
      if (number === asked) looking.value = false;
    }
  }, QUIET);

  watch(
    () => [scene.id, scene.revision] as const,
    ([id], [before]) => {
      if (id !== before) {
        state.value = null;
        pointed.value = null;
      }
      looking.value = id !== null;
      if (id) void ask();
    },
  );
  // What was mended or hushed is pointed at no more.
  watch(list, (now) => {
    if (pointed.value && !now.some((one) => keyOf(one) === keyOf(pointed.value!))) pointed.value = null;
  });

  function toggle(): void {
    open.value = !open.value;
    if (!open.value) pointed.value = null;
  }

  /** Go where a note is: its object, its row, its first frame. */
  function goTo(note: NoteWords): void {
    playback.pause();
    if (note.object && scene.byId.has(note.object)) {
      selection.pick(note.object);
      const thing = scene.byId.get(note.object)!;
      const row = [...vocabulary.rowsOf(thing), ...vocabulary.settingRowsOf(thing)].find((one) =>
        one.channels.some((channel) => channel.name === note.channel),
      );
      if (row) selection.pickRow(row.name, note.channel ?? null);
    }
    playback.goTo(Math.min(Math.max(Math.round(note.frames[0]), 0), playback.last));
  }

  const look = (edits: Edit[]): void => void scene.lookAt(edits);
  const letGo = (): void => {
    if (scene.look && !scene.look.said) scene.letGo();
  };
  /** Take a ready mend, as one step of undo. */
  const mend = (edits: Edit[]) => scene.attempt(edits);
  const hush = (note: NoteWords, all: boolean) =>
    scene.edit([
      {
        edit: "hush-note",
        kind: note.kind,
        object: all ? null : note.object,
        channel: all ? null : note.channel,
        hushed: true,
      },
    ]);
  const hear = () =>
    scene.edit((state.value?.hushed ?? []).map((one): Edit => ({ edit: "hush-note", ...one, hushed: false })));

  return { state, list, open, looking, pointed, toggle, goTo, look, letGo, mend, hush, hear };
});
