/** Of a long list only the rows in view, and some beyond: rows that nobody sees cost as much as those that are seen. */
import { useVirtualList } from "@vueuse/core";
import { computed, nextTick, watch } from "vue";

export interface RowsInView<T> {
  /** How high the row at a place is, in pixels. */
  readonly heightOf: (place: number) => number;
  /** How many rows there are beyond both ends of what is seen. */
  readonly beyond: number;
  /** The row that shall come into view when it is picked elsewhere and is not there yet. */
  readonly isPicked: (row: T) => boolean;
  /** What is picked, to be watched. */
  readonly picked: () => unknown;
}

export function useRowsInView<T>(rows: () => readonly T[], { heightOf, beyond, isPicked, picked }: RowsInView<T>) {
  // The library measures the page again for each new list, so a new one is made only where rows change.
  const heights = computed<readonly number[]>((was) => {
    const now = rows().map((_, place) => heightOf(place));
    return was?.length === now.length && now.every((height, place) => height === was[place]) ? was : now;
  });
  // The list is of places: the rows themselves must stay as they are, and the library would wrap them.
  const places = computed(() => heights.value.map((_, place) => place));
  const { list, containerProps, wrapperProps, scrollTo } = useVirtualList(places, {
    itemHeight: heightOf,
    overscan: beyond,
  });
  /** The rows there are, with their places. A list that has become shorter is heard of a little later. */
  const shown = computed(() =>
    list.value.flatMap(({ data: place }) => (place < rows().length ? [{ place, row: rows()[place]! }] : [])),
  );

  // A row that is there brings itself into view.
  watch(picked, async () => {
    await nextTick();
    const place = rows().findIndex(isPicked);
    if (place >= 0 && !shown.value.some((one) => one.place === place)) scrollTo(place);
  });

  return { shown, containerProps, wrapperProps };
}
