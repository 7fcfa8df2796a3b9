/** The keyboard: one table that is both obeyed and shown on the sheet of shortcuts. */
import { onKeyStroke, useEventListener } from "@vueuse/core";

export interface Shortcut {
  /** As `KeyboardEvent.key`, with Ctrl+, Shift+ and Alt+ before it in this order. */
  readonly keys: readonly string[];
  readonly says: string;
  readonly group: string;
  /** Told which of its keys was pressed. */
  readonly run: (key: string) => void;
}

/** How a key press is written in the table. Characters represent themselves, so Shift is only named with other keys. */
export function keyOf(event: KeyboardEvent): string {
  const letter = event.key.length === 1;
  const key = event.key === " " ? "Space" : letter ? event.key.toLowerCase() : event.key;
  const shift = event.shiftKey && (!letter || /[a-z]/.test(key)) ? "Shift+" : "";
  return `${event.ctrlKey || event.metaKey ? "Ctrl+" : ""}${shift}${event.altKey ? "Alt+" : ""}${key}`;
}

/** Whether a key press belongs to what is being typed into, or to an open dialog or menu. */
function belongsElsewhere(event: KeyboardEvent): boolean {
  const target = event.target as HTMLElement | null;
  if (!target?.closest) return false;
  const typing = target.closest(
    "input:not([type=checkbox]):not([type=radio]):not([type=range]), textarea, select, [contenteditable=true]",
  );
  // What has closed can still hold the focus for a moment; it takes no keys any more.
  const dialog = target.closest<HTMLElement>("[role=dialog], [role=menu], .el-popper")?.checkVisibility();
  // A focused button takes Space and Enter for itself.
  const pressing =
    (event.key === " " || event.key === "Enter") &&
    target.closest("button, a, summary, [role=option], [role=treeitem], [role=switch]");
  // Escape closes what is on top before it does anything else.
  const onTop =
    event.key === "Escape" &&
    [...document.querySelectorAll<HTMLElement>(".el-popper, .el-overlay")].some(
      (one) => one.offsetParent !== null || one.checkVisibility(),
    );
  return Boolean(typing || dialog || pressing || onTop);
}

/** Obey a table of shortcuts for as long as the component lives, wherever on the page a key is pressed. */
export function useShortcuts(shortcuts: readonly Shortcut[]): void {
  const byKey = new Map(shortcuts.flatMap((shortcut) => shortcut.keys.map((key) => [key, shortcut] as const)));
  // Asked before anything hears of the key: a dialog that Escape closes is missing when it comes back up to the window.
  let elsewhere = false;
  useEventListener(window, "keydown", (event: KeyboardEvent) => void (elsewhere = belongsElsewhere(event)), {
    capture: true,
  });
  onKeyStroke((event) => {
    if (elsewhere || event.defaultPrevented) return;
    const key = keyOf(event);
    const shortcut = byKey.get(key);
    if (!shortcut) return;
    event.preventDefault();
    shortcut.run(key);
  });
}
