import { expect, it } from "vitest";
import { nextTick, ref, shallowRef } from "vue";
import type { Key } from "@/api/types";
import { PAD, useCurveScales } from "@/composables/curves/useCurveScales";
import type { KeyedCurve } from "@/composables/curves/useKeyedCurves";
import { useVocabulary } from "@/stores/vocabulary";
import { staged, thing } from "@/testing/stage";

const key = (frame: number, value: Key["value"]): Key => ({ frame, value, ease: "linear" }) as Key;

it("gives each curve its own height, or all one scale, and keeps it while a hand holds something", async () => {
  staged([thing("leaf")]);
  const words = (name: string) =>
    useVocabulary()
      .channelsOf(thing("leaf"))
      .find((one) => one.name === name)!;
  const curve = (name: string, values: number[], keys: Key[]): KeyedCurve => ({
    words: words(name),
    values,
    keys,
    keyed: null,
    isNumber: name !== "fill",
  });
  const x = curve("x", [0, 100], [key(0, 0), key(1, 100)]);
  const turn = curve("rotation", [10, 20], [key(0, 10), key(1, 20)]);
  const fill = curve("fill", [0.2, 0.8], [key(0, "#333333"), key(1, "#CCCCCC")]);
  const curves = shallowRef<readonly KeyedCurve[]>([x, turn, fill]);
  const held = ref(false);
  const scales = useCurveScales(
    curves,
    ref([x, turn]),
    ref(132),
    () => held.value,
    () => false,
  );
  expect(scales.inside.value).toBe(132 - 2 * PAD);
  const middle = (name: string, value: number) => scales.y(name, value) - PAD;
  expect([middle("x", 50), middle("rotation", 15)]).toEqual([50, 50]);
  // A colour lies where its lightness is.
  expect([scales.valueOf(fill, fill.keys[1]!), scales.valueOf(x, x.keys[1]!)]).toEqual([0.8, 100]);
  scales.normalised.value = false;
  await nextTick();
  expect(scales.rangeOf("rotation")).toEqual(scales.rangeOf("x"));
  held.value = true;
  curves.value = [curve("x", [0, 900], [...x.keys]), turn, fill];
  await nextTick();
  expect(scales.rangeOf("x").high).toBeLessThan(200);
  held.value = false;
  scales.normalised.value = true;
  await nextTick();
  expect(scales.rangeOf("x").high).toBeGreaterThan(800);
});
