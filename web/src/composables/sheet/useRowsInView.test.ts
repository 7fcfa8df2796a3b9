/** Of a long list the rows in view. */
import { beforeEach, describe, expect, it, vi } from "vitest";
import { nextTick, ref, shallowRef } from "vue";
import { useRowsInView } from "@/composables/sheet/useRowsInView";

/** A thousand rows of 20 px, every tenth of 30 px, in a window of 100 px, with two rows beyond each end. */
function listed() {
  const rows = shallowRef(Array.from({ length: 1000 }, (_, place) => `row ${place}`));
  const picked = ref<string | null>(null);
  const heightOf = (place: number) => (place % 10 ? 20 : 30);
  const view = useRowsInView(() => rows.value, {
    heightOf,
    beyond: 2,
    isPicked: (row) => row === picked.value,
    picked: () => picked.value,
  });
  const scrollTo = vi.fn(({ top }: { top: number }) => void (element.scrollTop = top));
  const element = { clientHeight: 100, scrollTop: 0, scrollTo };
  view.containerProps.ref.value = element as never;
  const places = () => view.shown.value.map((one) => one.place);
  return { rows, picked, view, element, places };
}
let list: ReturnType<typeof listed>;
beforeEach(async () => {
  list = listed();
  await nextTick();
});

describe("rows in view", () => {
  it("are those that are seen and some beyond, the very rows of the list", () => {
    expect(list.places()[0]).toBe(0);
    expect(list.places().length).toBeLessThan(12);
    expect(list.view.shown.value.every(({ place, row }) => row === list.rows.value[place])).toBe(true);
  });

  it("follow what is scrolled, by the heights of the rows above", () => {
    // Ten rows take 30 + 9 × 20 px.
    list.element.scrollTop = 210 * 50;
    list.view.containerProps.onScroll();
    const places = list.places();
    expect(places).toContain(500);
    expect(places).toContain(504);
    expect(Math.min(...places)).toBeGreaterThan(490);
    expect(Math.max(...places)).toBeLessThan(512);
    const { marginTop, height } = list.view.wrapperProps.value.style as Record<"marginTop" | "height", string>;
    expect(parseFloat(marginTop) + parseFloat(height)).toBe(210 * 100);
  });

  it("bring what is picked elsewhere into view, and leave alone what is there", async () => {
    list.picked.value = "row 3";
    await nextTick();
    await nextTick();
    expect(list.element.scrollTo).not.toHaveBeenCalled();
    list.picked.value = "row 700";
    await nextTick();
    await nextTick();
    expect(list.places()).toContain(700);
    // What is not in the list, as in a group that is folded, moves nothing.
    list.element.scrollTo.mockClear();
    list.picked.value = "another";
    await nextTick();
    await nextTick();
    expect(list.element.scrollTo).not.toHaveBeenCalled();
  });

  it("never are of rows that went, where the list has not heard of it yet", () => {
    list.element.scrollTop = 210 * 50;
    list.view.containerProps.onScroll();
    list.rows.value = list.rows.value.slice(0, 502);
    expect(Math.max(...list.places())).toBe(501);
  });
});
