/** Following what changes often at a calmer pace: what is read beside the picture leaves the picture its time. */
import { useThrottleFn } from "@vueuse/core";
import { type Ref, shallowRef, watch } from "vue";

/** Milliseconds from one value to the next while the source is busy. */
const PAUSE = 100;

/** The value of `source`: the newest at once, but while `isBusy` one every tenth of a second, and always the last. */
export function useCalm<T>(source: Ref<T>, isBusy: () => boolean): Readonly<Ref<T>> {
  const calm = shallowRef(source.value) as Ref<T>;
  const take = (): void => void (calm.value = source.value);
  const takeCalmly = useThrottleFn(take, PAUSE, true);
  // In step with the source, so that nobody sees a new scene beside motion that is old.
  watch(source, () => (isBusy() ? void takeCalmly() : take()), { flush: "sync" });
  return calm;
}
