/** What is picked of an outline, and what is being drawn. Nothing of this is kept with the scene. */
import { useLocalStorage } from "@vueuse/core";
import { defineStore } from "pinia";
import { ref, shallowRef } from "vue";
import type { Point } from "@/geometry/matrix";

/** A point of an outline that is being drawn, in the picture, with its handles. */
export interface DrawnPoint {
  readonly at: Point;
  readonly into: Point | null;
  readonly out: Point | null;
}

export const useOutline = defineStore("outline", () => {
  /** The numbers of the picked points of the picked object's outline. */
  const picked = ref<ReadonlySet<number>>(new Set());
  /** Whether new outlines are drawn point by point or freely. */
  const freely = useLocalStorage("draw-freely", false);
  /** How far, in px, a free line may stray from where the hand went. */
  const tolerance = useLocalStorage("draw-tolerance", 2);
  /** The points drawn so far, and where the pointer is. */
  const drawn = shallowRef<readonly DrawnPoint[]>([]);
  const pointer = shallowRef<Point | null>(null);
  /** The places the hand went, while it draws freely. */
  const hand = shallowRef<readonly Point[]>([]);
  /** Who waits for a colour to be taken from the picture. */
  const taking = shallowRef<((hex: string) => void) | null>(null);

  function pick(numbers: Iterable<number>, add = false): void {
    const next = new Set(add ? picked.value : []);
    for (const one of numbers)
      if (add && picked.value.has(one)) next.delete(one);
      else next.add(one);
    picked.value = next;
  }
  const clear = (): void => void (picked.value = new Set());

  return { picked, freely, tolerance, drawn, pointer, hand, taking, pick, clear };
});
