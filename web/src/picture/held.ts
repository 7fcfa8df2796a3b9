/** One drag with a pointer: from the press on something until it is let go. */

/**
 * Follow a press: `move` hears of every move, `end` of the letting go. The pressed thing keeps the pointer meanwhile, and nothing else
 * hears of the press. False for any button but the first.
 */
export function held(event: PointerEvent, move: (event: PointerEvent) => void, end: () => void): boolean {
  if (event.button !== 0) return false;
  event.preventDefault();
  event.stopPropagation();
  const target = event.currentTarget as HTMLElement | SVGElement;
  target.setPointerCapture(event.pointerId);
  const heard = (e: Event): void => move(e as PointerEvent);
  target.addEventListener("pointermove", heard);
  target.addEventListener(
    "pointerup",
    () => {
      target.removeEventListener("pointermove", heard);
      end();
    },
    { once: true },
  );
  return true;
}
