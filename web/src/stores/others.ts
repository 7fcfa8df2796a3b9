/** The other pages that have this scene open: who they are, and what they did last. */
import { useLocalStorage, useTimeoutFn } from "@vueuse/core";
import { defineStore } from "pinia";
import { computed, ref, shallowRef } from "vue";
import { thisPage } from "@/api/page";
import type { PageWords, SceneChanged } from "@/api/types";

/** Something another page did. */
export interface Done {
  readonly who: string;
  readonly what: string;
  readonly at: Date;
}

/** Of what others did, this many are remembered. */
const REMEMBERED = 20;
/** How long the last one is shown by itself, ms. */
const SHOWN = 6000;

export const useOthers = defineStore("others", () => {
  /** What the user of this page wants to be called; the service gives a number where it is empty. */
  const name = useLocalStorage("my-name", "");
  const pages = shallowRef<readonly PageWords[]>([]);
  const done = shallowRef<readonly Done[]>([]);
  const latest = ref<Done | null>(null);
  const list = computed(() => pages.value.filter((page) => page.id !== thisPage));
  /** What this page is called by the others. */
  const me = computed(() => pages.value.find((page) => page.id === thisPage)?.name ?? "");
  const fading = useTimeoutFn(() => (latest.value = null), SHOWN, { immediate: false });

  /** Somebody came, went, or is called otherwise; whether others came or went. */
  function here(now: readonly PageWords[]): boolean {
    const before = list.value.map((page) => page.id).join();
    pages.value = now;
    return before !== list.value.map((page) => page.id).join();
  }

  function tell(news: SceneChanged): void {
    const how = { made: "", undone: "took back: ", redone: "did again: " }[news.how];
    const one = { who: news.by?.name ?? "Outside this page", what: `${how}${news.what}`, at: new Date() };
    done.value = [one, ...done.value].slice(0, REMEMBERED);
    latest.value = one;
    fading.start();
  }

  function leave(): void {
    pages.value = [];
    done.value = [];
    latest.value = null;
  }

  return { name, list, me, done, latest, here, tell, leave };
});
