/** Which objects show their parts in the troupe and on the time sheet, and which limbs of figures their rows. */
import { type ShallowRef, shallowRef } from "vue";
import { toggled } from "@/geometry/sets";

/**
 * `isPickedRow` says whether the picked row is one of a limb of an object: such a limb is open. `leaveRow` picks
 * another row, so that the limb can be folded.
 */
export function useUnfolded(isPickedRow: (id: string, limb: string) => boolean, leaveRow: () => void) {
  const unfolded: ShallowRef<ReadonlySet<string>> = shallowRef(new Set<string>());
  /** Limbs that were opened, as the figure's id and the limb's name. */
  const openLimbs: ShallowRef<ReadonlySet<string>> = shallowRef(new Set<string>());

  /** Show or fold the parts of an object. */
  const fold = (id: string): void => void (unfolded.value = toggled(unfolded.value, id));

  /** Show the parts of some objects. */
  function unfold(ids: readonly string[]): void {
    if (ids.some((one) => !unfolded.value.has(one))) unfolded.value = new Set([...unfolded.value, ...ids]);
  }

  const isLimbOpen = (id: string, limb: string): boolean =>
    openLimbs.value.has(`${id} ${limb}`) || isPickedRow(id, limb);

  /** Show or fold the rows of a limb. */
  function foldLimb(id: string, limb: string): void {
    const next = new Set(openLimbs.value);
    if (isLimbOpen(id, limb)) {
      next.delete(`${id} ${limb}`);
      if (isPickedRow(id, limb)) leaveRow();
    } else next.add(`${id} ${limb}`);
    openLimbs.value = next;
  }

  function foldAll(): void {
    unfolded.value = new Set();
    openLimbs.value = new Set();
  }

  return { unfolded, fold, unfold, isLimbOpen, foldLimb, foldAll };
}
