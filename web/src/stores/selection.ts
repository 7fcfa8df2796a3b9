/** What is picked on the page, and how the page is set. Nothing of this is kept with the scene. */
import { useLocalStorage } from "@vueuse/core";
import { defineStore } from "pinia";
import { computed, ref, shallowRef, watch } from "vue";
import { keysOf as keysIn } from "@/api/channels";
import { isDial } from "@/api/kinds";
import type { Key } from "@/api/types";
import type { Point } from "@/geometry/matrix";
import { keysAt, usePicks } from "@/stores/picks";
import { useScene } from "@/stores/scene";
import { type Row, useVocabulary } from "@/stores/vocabulary";

export type Tool = "pick" | "pivot" | "path" | "draw" | "points" | "link" | "joints";

const SHEET_TABS = ["sheet", "curves", "speed", "depth", "links"] as const;
export type SheetTab = (typeof SHEET_TABS)[number];

export const useSelection = defineStore("selection", () => {
  const scene = useScene();
  const vocabulary = useVocabulary();
  const picks = usePicks();

  const objectId = ref<string | null>(null);
  /** What is picked together with it. */
  const also = shallowRef<ReadonlySet<string>>(new Set());
  /**
   * What several picked ones are turned and sized about, px of the picture; null for the middle of the box around them.
   */
  const commonPivot = shallowRef<Point | null>(null);
  const rowName = ref("Travel");
  const channelName = ref<string | null>(null);
  const renaming = ref<string | null>(null);
  /** What a parade is being made of. */
  const parading = ref<string | null>(null);
  /** The copy of a parade that is meant by "this one", from 0. */
  const copy = ref(0);
  /** The text that is being written in the picture. */
  const writing = ref<string | null>(null);
  /** Objects whose parts are shown in the troupe and on the time sheet. */
  const unfolded = ref<ReadonlySet<string>>(new Set());
  /** Limbs of figures whose rows are shown, as the figure's id and the limb's name. */
  const openLimbs = ref<ReadonlySet<string>>(new Set());
  const tool = ref<Tool>("pick");
  const keyAsIMove = useLocalStorage("key-as-i-move", true);
  /** Grid, guides and other objects that dragged things snap to. */
  const snap = useLocalStorage("snap", { on: true, across: 0, down: 0 });
  /**
   * Onion skin: how many before and after, every how many frames, or on keys only; and whose besides the picked one's.
   */
  const onion = useLocalStorage("onion", {
    on: false,
    before: 2,
    after: 2,
    every: 4,
    keys: false,
    also: null as string | null,
  });
  /** Whether a resting frame is shown as exports paint it, with motion blur. */
  const showBlur = useLocalStorage("show-blur", true);
  const showPath = useLocalStorage("show-path", true);
  /** Whether the picture shows who drives the picked object, and whom it drives. */
  const showDrives = useLocalStorage("show-drives", true);
  const sheetTab = useLocalStorage<SheetTab>("sheet-tab", "sheet");
  // What an earlier version kept may be a tab that is called otherwise now.
  if (!SHEET_TABS.includes(sheetTab.value)) sheetTab.value = "sheet";
  /** Whether the time sheet leaves out what has no keys. */
  const onlyMoving = useLocalStorage("only-moving", false);

  /** Whether the time sheet shows the keys of every copy of a parade. */
  const copyLanes = useLocalStorage("copy-lanes", true);

  const thing = computed(() => scene.byId.get(objectId.value ?? "") ?? null);
  /** The picked object, where it is one of the troupe and no dial. */
  const object = computed(() => (thing.value && !isDial(thing.value) ? thing.value : null));
  /** All picked objects of the troupe, the one whose values are shown first. */
  const picked = computed(() =>
    [objectId.value, ...also.value].flatMap((id) => {
      const one = id ? scene.byId.get(id) : undefined;
      return one && !isDial(one) ? [one.id] : [];
    }),
  );
  const several = computed(() => picked.value.length > 1);
  /** Those picked together with the one whose values are shown first. */
  const others = computed(() => picked.value.slice(1).flatMap((id) => scene.byId.get(id) ?? []));
  watch(
    () => picked.value.join(" "),
    () => (commonPivot.value = null),
  );
  const rows = computed(() => (thing.value ? vocabulary.rowsOf(thing.value) : []));
  /** The picked row, which can be a keyed setting of a rule. */
  const row = computed<Row | null>(
    () =>
      (thing.value
        ? [...rows.value, ...vocabulary.settingRowsOf(thing.value)].find((one) => one.name === rowName.value)
        : undefined) ??
      rows.value[0] ??
      null,
  );
  /** The channel the vine explains: the one chosen, else the row's first with keys, else its first. */
  const channel = computed(() => {
    const within = row.value?.channels ?? [];
    return (
      within.find((one) => one.name === channelName.value) ??
      within.find((one) => keysOf(one.name).length > 0) ??
      within.find((one) => one.unit !== "point") ??
      null
    );
  });

  /** Frames of the picked leaves within the picked row; setting them picks those and no others. */
  const leaves = computed<ReadonlySet<number>>({
    get: () =>
      new Set(
        picks.keys
          .filter(
            (one) =>
              one.object === objectId.value && row.value?.channels.some((channel) => channel.name === one.channel),
          )
          .flatMap((one) => one.frames),
      ),
    set: (frames) =>
      picks.set(
        thing.value && row.value
          ? keysAt(
              thing.value,
              row.value.channels.map((channel) => channel.name),
              frames,
            )
          : [],
      ),
  });

  const keysOf = (name: string): readonly Key[] => (thing.value ? keysIn(thing.value, name) : []);

  /** What was picked before what is picked now. */
  let pickedBefore: readonly string[] = [];
  // Undo may take away what is picked, such as a copy that was made of something: that is picked again then.
  scene.$onAction(({ name, after }) => {
    if ((name !== "undo" && name !== "redo") || !picked.value.length) return;
    after(() => {
      if (!picked.value.length) pickAll(pickedBefore.filter((id) => scene.byId.has(id)));
    });
  });

  /** Pick an object; picked keys are let go unless they are to be kept. */
  function pick(id: string | null, keepKeys = false): void {
    if (id !== objectId.value && !keepKeys) picks.clear();
    if (id !== objectId.value && picked.value.length) pickedBefore = picked.value;
    if (id !== objectId.value) copy.value = 0;
    objectId.value = id;
    if (also.value.size) also.value = new Set();
    // What is picked can always be seen in the troupe.
    const above: string[] = [];
    for (let at = id ? scene.byId.get(id)?.parent : null; at; at = scene.byId.get(at)?.parent) above.push(at);
    if (above.some((one) => !unfolded.value.has(one))) unfolded.value = new Set([...unfolded.value, ...above]);
  }

  /** Pick an object together with those that are picked, or let go of it alone. */
  function toggle(id: string): void {
    const others = new Set(also.value);
    if (objectId.value === null || isDial(scene.byId.get(objectId.value))) pick(id);
    else if (id === objectId.value) {
      const [next, ...rest] = others;
      pick(next ?? null);
      also.value = new Set(rest);
    } else {
      if (!others.delete(id)) others.add(id);
      also.value = others;
    }
  }

  /** Pick some objects together. */
  function pickAll(ids: readonly string[]): void {
    const [first, ...rest] = ids;
    pick(first ?? null);
    also.value = new Set(rest);
  }

  /** Show or fold the parts of an object. */
  function fold(id: string): void {
    const next = new Set(unfolded.value);
    if (!next.delete(id)) next.add(id);
    unfolded.value = next;
  }

  /** Whether the rows of a part of a figure are shown: it was opened, or the picked row is one of them. */
  const isLimbOpen = (id: string, part: string): boolean =>
    openLimbs.value.has(`${id} ${part}`) || (objectId.value === id && row.value?.part === part);
  function foldLimb(id: string, part: string): void {
    const next = new Set(openLimbs.value);
    if (isLimbOpen(id, part)) {
      next.delete(`${id} ${part}`);
      if (objectId.value === id && row.value?.part === part) pickRow("Travel", null, true);
    } else next.add(`${id} ${part}`);
    openLimbs.value = next;
  }

  function pickRow(name: string, channel: string | null = null, keepKeys = false): void {
    if (name !== rowName.value && !keepKeys) picks.clear();
    rowName.value = name;
    channelName.value = channel;
  }

  function reset(): void {
    objectId.value = null;
    also.value = new Set();
    pickedBefore = [];
    picks.clear();
    unfolded.value = new Set();
    openLimbs.value = new Set();
    renaming.value = null;
    writing.value = null;
    parading.value = null;
    tool.value = "pick";
  }

  return {
    objectId,
    also,
    picked,
    several,
    others,
    commonPivot,
    toggle,
    pickAll,
    rowName,
    channelName,
    leaves,
    renaming,
    copy,
    writing,
    parading,
    unfolded,
    tool,
    keyAsIMove,
    snap,
    onion,
    showPath,
    showBlur,
    showDrives,
    onlyMoving,
    copyLanes,
    sheetTab,
    thing,
    object,
    rows,
    row,
    channel,
    keysOf,
    pick,
    fold,
    isLimbOpen,
    foldLimb,
    pickRow,
    reset,
  };
});
