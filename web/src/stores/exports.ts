/** Exports: those that wait, are under way or are kept; watched while any of them goes on, whatever view is open. */
import { useIntervalFn } from "@vueuse/core";
import { defineStore } from "pinia";
import { computed, ref, shallowRef } from "vue";
import { api } from "@/api/client";
import type { ExportOptions, ExportReport } from "@/api/types";
import { useMessages } from "@/stores/messages";

/** How often those that go on are asked after, ms. */
const EVERY = 200;
/** How far apart files are saved, ms: of more than ten within a second, browsers leave out those beyond. */
const APART = 150;
export const goesOn = (one: ExportReport): boolean => one.state === "waiting" || one.state === "running";
export const fileOf = (one: ExportReport): string => `/api/exports/${one.id}/file`;

export const useExports = defineStore("exports", () => {
  const messages = useMessages();
  const list = shallowRef<readonly ExportReport[]>([]);
  /** Those this page asked for: their files are fetched as soon as they are done. */
  const mine = new Set<string>();
  /** Those of the last request, in its order. */
  const last = ref<readonly string[]>([]);
  const active = computed(() => list.value.filter(goesOn));
  const latest = computed(() => last.value.flatMap((id) => list.value.find((one) => one.id === id) ?? []));

  const poll = useIntervalFn(() => void look(), EVERY, { immediate: false });
  /** What is done and not saved yet. */
  const toSave: ExportReport[] = [];
  const saving = useIntervalFn(saveNext, APART, { immediate: false, immediateCallback: true });

  async function attempt<T>(work: () => Promise<T>): Promise<T | null> {
    const done = await messages.attempt(work);
    // A server that does not answer is not asked repeatedly.
    if (done === null) poll.pause();
    return done;
  }

  async function look(): Promise<void> {
    const found = await attempt(api.exports);
    if (!found) return;
    list.value = found;
    for (const one of found) {
      if (mine.has(one.id) && !goesOn(one)) {
        mine.delete(one.id);
        if (one.state === "done") toSave.push(one);
      }
    }
    if (toSave.length && !saving.isActive.value) saving.resume();
    if (active.value.length) poll.resume();
    else poll.pause();
  }

  function saveNext(): void {
    const one = toSave.shift();
    if (one) fetchFile(one);
    else saving.pause();
  }

  function fetchFile(one: ExportReport): void {
    const link = document.createElement("a");
    link.href = fileOf(one);
    link.download = one.name;
    link.click();
  }

  /** Request exports of a scene in some formats. Throws refusals, for the dialog to show. */
  async function start(scene: string, formats: readonly string[], options: ExportOptions, name: string | null) {
    const made = await api.startExports(scene, formats, options, name);
    for (const one of made) mine.add(one.id);
    last.value = made.map((one) => one.id);
    await look();
  }

  const again = (one: ExportReport) =>
    attempt(() => start(one.scene, [one.format], one.options as ExportOptions, null));

  async function change(work: () => Promise<unknown>): Promise<void> {
    await attempt(work);
    await look();
  }

  return {
    list,
    latest,
    active,
    look,
    start,
    again,
    fetchFile,
    cancel: (one: ExportReport) => change(() => api.cancelExport(one.id)),
    first: (one: ExportReport) => change(() => api.exportFirst(one.id)),
    forget: (one: ExportReport) => change(() => api.forgetExport(one.id)),
    /** The last request is seen to: a new one begins. */
    settle: () => (last.value = []),
  };
});
