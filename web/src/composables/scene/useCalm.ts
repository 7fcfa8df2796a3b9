/** Follow frequent changes at a slower pace, so that panels leave the picture its time. */
import { useTimeoutFn } from "@vueuse/core";
import { nextTick, type Ref, shallowRef, watch } from "vue";

/** Milliseconds from one value to the next while the source is busy: at least, and at most where the page is slow. */
const [LEAST, MOST] = [100, 1000];
/** The pause is this many times what the page took to follow: the picture is painted on time in all but few looks. */
const FACTOR = 20;

/**
 * The value of `source`: the newest at once, but while `isBusy` one every tenth of a second, more rarely where the page
 * takes long over it, and always the last. It changes together with the source, so that both take one frame of the
 * browser.
 */
export function useCalm<T>(source: Ref<T>, isBusy: () => boolean): Readonly<Ref<T>> {
  const calm = shallowRef(source.value) as Ref<T>;
  let [taken, pause] = [-Infinity, LEAST];
  const atRest = useTimeoutFn(take, () => pause, { immediate: false });

  function take(): void {
    atRest.stop();
    calm.value = source.value;
    taken = performance.now();
    void nextTick(() => (pause = Math.min(MOST, Math.max(LEAST, FACTOR * (performance.now() - taken)))));
  }

  // In step with the source, so that nobody sees a new scene beside motion that is old.
  watch(source, () => (isBusy() && performance.now() < taken + pause ? atRest.start() : take()), { flush: "sync" });
  return calm;
}
