/** A card's moving picture: its motion is fetched when the card is first seen, and plays while it can be seen. */
import { useElementVisibility, usePreferredReducedMotion } from "@vueuse/core";
import { computed, ref, type Ref, shallowRef, watch } from "vue";
import { type Motion, readMotion } from "@/api/motion";

/** `pointed` is to be set while the pointer is over the card: who asked for little motion gets it only there. */
export function useMotionInView(card: Ref<HTMLElement | undefined>, fetched: () => Promise<Uint8Array>) {
  const seen = useElementVisibility(card);
  const reduced = usePreferredReducedMotion();
  const pointed = ref(false);
  const motion = shallowRef<Motion | null>(null);
  const playing = computed(() => seen.value && (pointed.value || reduced.value !== "reduce"));
  watch(
    seen,
    (visible) => {
      if (visible && !motion.value)
        void fetched().then(
          (message) => (motion.value = readMotion(message)),
          () => undefined,
        );
    },
    { immediate: true },
  );
  return { motion, playing, pointed };
}
