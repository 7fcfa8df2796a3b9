/**
 * What others change while something is dragged: the drag began with what it was before, so it must not end in the
 * place of theirs.
 */
import { concern } from "@/geometry/touched";

/** `ids`: those of all that is in the scene. */
export function useOvertaking(ids: () => ReadonlySet<string>) {
  let overtaking: { readonly who: string; readonly touched: ReadonlySet<string> } | null = null;
  let dragging = false;

  /** A button of the pointer is pressed, or not any more. */
  function press(down: boolean): void {
    dragging = down;
    if (down) overtaking = null;
  }

  /** Somebody changed what is being looked at. */
  function note(who: string, touched: ReadonlySet<string>): void {
    if (dragging) overtaking = { who, touched };
  }

  /** Who changed the objects of some edits during the current drag; null if nobody did. */
  const whoOvertook = (edits: readonly object[]): string | null =>
    overtaking && concern(edits, overtaking.touched, ids()) ? overtaking.who : null;

  /** The drag has ended. */
  const forget = (): void => void (overtaking = null);

  return { press, note, whoOvertook, forget };
}
