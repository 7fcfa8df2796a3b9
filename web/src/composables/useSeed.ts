/** A seed that travels over a small picture repeatedly: how far in its time it is, 0…1, while it runs. */
import { useRafFn } from "@vueuse/core";
import { ref } from "vue";

/** Each run takes `travel` milliseconds of every `period`; the rest of it the seed lies where it arrived. */
export function useSeed(period: number, travel: number) {
  const share = ref(0);
  let begun = 0;
  const raf = useRafFn(
    ({ timestamp }) => {
      begun ||= timestamp;
      share.value = Math.min(1, ((timestamp - begun) % period) / travel);
    },
    { immediate: false },
  );

  function start(): void {
    begun = 0;
    raf.resume();
  }

  function stop(): void {
    raf.pause();
    share.value = 0;
  }

  return { share, start, stop };
}
