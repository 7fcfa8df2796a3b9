/** How an animator has set the workspace: kept by the browser, for all scenes. */
import { useLocalStorage } from "@vueuse/core";

const SHEET_TABS = ["sheet", "curves", "speed", "depth", "links"] as const;
export type SheetTab = (typeof SHEET_TABS)[number];

export function useWorkspaceSettings() {
  const keyAsIMove = useLocalStorage("key-as-i-move", true);
  /** Grid, guides and other objects that dragged objects snap to. */
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

  return { keyAsIMove, snap, onion, showBlur, showPath, showDrives, sheetTab, onlyMoving, copyLanes };
}
