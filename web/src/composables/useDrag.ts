/** Drags with a pointer: from the press to the release, or until Escape or the browser cancels it. */

export interface Drag {
  readonly move: (event: PointerEvent) => void;
  /** `kept` is false if the drag was cancelled: its preview must then be removed. */
  readonly end?: (kept: boolean) => void;
}

/** How far the pointer goes before a press becomes a drag, px of the screen. */
export const SLACK = 3;

/** Follow a press. The pressed element captures the pointer; other pointers are ignored meanwhile. */
export function beginDrag(press: PointerEvent, { move, end }: Drag): void {
  const target = press.currentTarget as Element;
  target.setPointerCapture(press.pointerId);
  const listening = new AbortController();
  const { signal } = listening;
  const hear = (name: string, heard: (event: PointerEvent) => void): void =>
    target.addEventListener(
      name,
      (event) => (event as PointerEvent).pointerId === press.pointerId && heard(event as PointerEvent),
      { signal },
    );
  const finish = (kept: boolean): void => {
    listening.abort();
    end?.(kept);
  };
  hear("pointermove", move);
  hear("pointerup", () => finish(true));
  hear("pointercancel", () => finish(false));
  // A second finger means that the picture is moved or zoomed, and not what the first one took.
  window.addEventListener(
    "pointerdown",
    (event) => event.pointerType === "touch" && event.pointerId !== press.pointerId && finish(false),
    { capture: true, signal },
  );
  window.addEventListener(
    "keydown",
    (event) => {
      if (event.key !== "Escape") return;
      event.stopPropagation();
      finish(false);
    },
    { capture: true, signal },
  );
}

/** Follow a press that nothing else shall hear of. False for any button but the first. */
export function beginOwnDrag(press: PointerEvent, drag: Drag): boolean {
  if (press.button !== 0) return false;
  press.preventDefault();
  press.stopPropagation();
  beginDrag(press, drag);
  return true;
}
