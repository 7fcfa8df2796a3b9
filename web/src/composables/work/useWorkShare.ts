/** How long a request has taken and how much of it is done, while it is under way. */
import { useIntervalFn } from "@vueuse/core";
import { computed, ref, watch, type ComputedRef, type Ref } from "vue";
import { api } from "@/api/client";
import type { Work } from "@/api/work";

/** A request that is done sooner is done before anybody has read of it, ms. */
export const SOON = 700;

/** Returns the ms since `work` began, and the percentage that is done: null where the service does not know it. */
export function useWorkShare(work: Ref<Work | null>): {
  taken: ComputedRef<number>;
  percent: ComputedRef<number | null>;
} {
  const now = ref(performance.now());
  const share = ref<number | null>(null);
  const taken = computed(() => (work.value ? now.value - work.value.since : 0));
  const clock = useIntervalFn(tick, 250, { immediate: false });
  let asking = false;

  function tick(): void {
    now.value = performance.now();
    if (taken.value > SOON) void ask();
  }

  async function ask(): Promise<void> {
    const asked = work.value;
    if (!asked || asking) return;
    asking = true;
    // Where it cannot be asked, the request itself says what is wrong.
    const known = await api.share(asked).catch(() => null);
    asking = false;
    if (asked === work.value) share.value = known;
  }

  watch(
    work,
    (begun) => {
      share.value = null;
      // Nothing ticks while nothing is under way.
      if (begun) clock.resume();
      else clock.pause();
    },
    { immediate: true },
  );
  return { taken, percent: computed(() => (share.value === null ? null : Math.floor(share.value * 100))) };
}
