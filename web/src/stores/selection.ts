/** What is picked on the page, and how the page is set. Nothing of this is kept with the scene. */
import { useLocalStorage } from "@vueuse/core";
import { defineStore } from "pinia";
import { computed, ref } from "vue";
import type { Key } from "@/api/types";
import { useScene } from "@/stores/scene";
import { type Row, useVocabulary } from "@/stores/vocabulary";

export type Tool = "pick" | "pivot";

export const useSelection = defineStore("selection", () => {
  const scene = useScene();
  const vocabulary = useVocabulary();

  const objectId = ref<string | null>(null);
  const rowName = ref("Travel");
  const channelName = ref<string | null>(null);
  /** Frames of the picked leaves, within the picked row. */
  const leaves = ref<ReadonlySet<number>>(new Set());
  const renaming = ref<string | null>(null);
  /** Objects whose parts are shown in the cast and on the time sheet. */
  const unfolded = ref<ReadonlySet<string>>(new Set());
  const tool = ref<Tool>("pick");
  const keyAsIMove = useLocalStorage("key-as-i-move", true);
  const showPath = useLocalStorage("show-path", true);
  /** Whether the time sheet leaves out what has no keys. */
  const sheetTab = useLocalStorage<"sheet" | "curves">("sheet-tab", "sheet");
  const onlyMoving = useLocalStorage("only-moving", false);

  const thing = computed(() => scene.byId.get(objectId.value ?? "") ?? null);
  const rows = computed(() => (thing.value ? vocabulary.rowsOf(thing.value) : []));
  const row = computed<Row | null>(() => rows.value.find((one) => one.name === rowName.value) ?? rows.value[0] ?? null);
  /** The channel the vine explains: the one chosen, else the row's first with keys, else its first. */
  const channel = computed(() => {
    const within = row.value?.channels ?? [];
    return within.find((one) => one.name === channelName.value) ?? within.find((one) => keysOf(one.name).length > 0) ?? within[0] ?? null;
  });

  const keysOf = (name: string): readonly Key[] => thing.value?.channels?.[name]?.keys ?? [];

  function pick(id: string | null): void {
    if (id !== objectId.value) leaves.value = new Set();
    objectId.value = id;
    // What is picked can always be seen in the cast.
    const above: string[] = [];
    for (let at = id ? scene.byId.get(id)?.parent : null; at; at = scene.byId.get(at)?.parent) above.push(at);
    if (above.some((one) => !unfolded.value.has(one))) unfolded.value = new Set([...unfolded.value, ...above]);
  }

  /** Show or fold the parts of an object. */
  function fold(id: string): void {
    const next = new Set(unfolded.value);
    if (!next.delete(id)) next.add(id);
    unfolded.value = next;
  }

  function pickRow(name: string, channel: string | null = null): void {
    if (name !== rowName.value) leaves.value = new Set();
    rowName.value = name;
    channelName.value = channel;
  }

  /** Pick a leaf; `more` adds it to those picked, or takes it out. */
  function pickLeaf(id: string, rowPicked: string, frame: number, more: boolean): void {
    const same = id === objectId.value && rowPicked === rowName.value;
    pick(id);
    pickRow(rowPicked, same ? channelName.value : null);
    const picked = new Set(more && same ? leaves.value : []);
    if (more && same && picked.has(frame)) picked.delete(frame);
    else picked.add(frame);
    leaves.value = picked;
  }

  function reset(): void {
    objectId.value = null;
    leaves.value = new Set();
    unfolded.value = new Set();
    renaming.value = null;
    tool.value = "pick";
  }

  return { objectId, rowName, channelName, leaves, renaming, unfolded, tool, keyAsIMove, showPath, onlyMoving, sheetTab, thing, rows, row, channel, keysOf, pick, fold, pickRow, pickLeaf, reset };
});
