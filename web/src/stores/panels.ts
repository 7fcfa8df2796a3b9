/**
 * How much room the panels of the workspace have, which are folded away (both remembered), and whether the picture has
 * it all.
 */
import { useLocalStorage, useWindowSize } from "@vueuse/core";
import { defineStore } from "pinia";
import { computed, reactive, ref } from "vue";

/** What can be in the place of the values. */
export type Beside = "notes" | "rehearsals" | "sounds";
export type Panel = "troupe" | "values" | "sheet" | "vine";

/** What a panel is called, where it lies, and how large it can be, px. */
export interface PanelRoom {
  readonly name: string;
  /** Which of its edges is dragged. */
  readonly edge: "right" | "left" | "top";
  readonly least: number;
  readonly most: number;
  readonly usual: number;
  /** Of a panel that takes height: no more than this share of a low window, unless one gives it another size. */
  readonly share?: number;
}

export const PANELS: Readonly<Record<Panel, PanelRoom>> = {
  troupe: { name: "Troupe", edge: "right", least: 150, most: 420, usual: 208 },
  values: { name: "Values", edge: "left", least: 260, most: 460, usual: 300 },
  sheet: { name: "Time sheet", edge: "top", least: 100, most: 420, usual: 180, share: 0.225 },
  vine: { name: "Vine", edge: "top", least: 150, most: 320, usual: 168, share: 0.21 },
};
/** The bar at the top, and the least that is left of the picture, px. */
const [TOP, PICTURE] = [48, 200];
/** What of a folded panel is left to bring it back by, px. */
const FOLDED = 14;

/** The px of a panel in a window so high: its own size, or, as long as that is the usual one, less in a low window. */
export function roomIn(height: number, panel: Panel, size: number): number {
  const { usual, least, share } = PANELS[panel];
  return share && size === usual ? Math.min(usual, Math.max(least, Math.round(share * height))) : size;
}

export const usePanels = defineStore("panels", () => {
  const { height } = useWindowSize();
  function sized(panel: Panel, key: string) {
    const kept = useLocalStorage(key, PANELS[panel].usual);
    return computed({ get: () => roomIn(height.value, panel, kept.value), set: (size) => (kept.value = size) });
  }
  const sizes = reactive({
    troupe: sized("troupe", "troupe-width"),
    values: sized("values", "values-width"),
    sheet: sized("sheet", "sheet-height"),
    vine: sized("vine", "vine-height"),
  });
  const folded = useLocalStorage<Panel[]>("folded-panels", []);
  /** Whether the picture and the transport have all of the page. */
  const big = ref(false);
  /** Whether something is being looked for by its name. */
  const finding = ref(false);

  const isFolded = (panel: Panel): boolean => folded.value.includes(panel);
  const isOpen = (panel: Panel): boolean => !big.value && !isFolded(panel);
  function fold(panel: Panel): void {
    folded.value = isFolded(panel) ? folded.value.filter((one) => one !== panel) : [...folded.value, panel];
  }
  /** Make a panel seen, whatever hides it. */
  function show(panel: Panel): void {
    if (isOpen(panel)) return;
    big.value = false;
    if (isFolded(panel)) fold(panel);
  }
  /** What is in the place of the values, if anything does. */
  const beside = ref<Beside | null>(null);
  /** Whether one of them lies there; setting it opens it in the place of any other, or closes it. */
  const besideOf = (which: Beside) =>
    computed({
      get: () => beside.value === which,
      set: (now) => {
        if (now) show("values");
        if (now) beside.value = which;
        else if (beside.value === which) beside.value = null;
      },
    });
  /** The px a panel takes. */
  const taken = (panel: Panel): number => (big.value ? 0 : isFolded(panel) ? FOLDED : sizes[panel]);
  const columns = computed(() => `${taken("troupe")}px minmax(0, 1fr) ${taken("values")}px`);
  const rows = computed(() => `${TOP}px minmax(${PICTURE}px, 1fr) ${taken("sheet")}px ${taken("vine")}px`);
  /** What all of them take at least, px: a lower window is scrolled. */
  const least = computed(() => TOP + PICTURE + taken("sheet") + taken("vine"));

  return { sizes, folded, big, finding, isFolded, isOpen, fold, show, beside, besideOf, columns, rows, least };
});
