/** Noticing that the server is back: while it does not answer, it is asked every now and then. */
import { useIntervalFn } from "@vueuse/core";
import { ref } from "vue";

/** Milliseconds from one asking to the next. */
const PAUSE = 2000;

/**
 * `ask` rejects while nobody answers, and `back` is called once it does not; `isOpen`: whether there is anything to ask
 * for.
 */
export function useServerReturn(ask: () => Promise<unknown>, isOpen: () => boolean, back: () => void) {
  const unreachable = ref(false);

  const asking = useIntervalFn(
    async () => {
      if (!unreachable.value || !isOpen()) return asking.pause();
      try {
        await ask();
      } catch {
        return;
      }
      answered();
      asking.pause();
      back();
    },
    PAUSE,
    { immediate: false },
  );

  /** The server did not answer. */
  function lost(): void {
    unreachable.value = true;
    asking.resume();
  }

  /** It answered something else. */
  const answered = (): void => void (unreachable.value = false);

  return { unreachable, lost, answered };
}
