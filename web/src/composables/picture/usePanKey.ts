/** While Z is held, a drag moves the picture about. */
import { useEventListener } from "@vueuse/core";
import { type Ref, ref } from "vue";

export function usePanKey(): Ref<boolean> {
  const panning = ref(false);
  useEventListener(window, "keydown", (event: KeyboardEvent) => {
    const typing = (event.target as HTMLElement | null)?.closest?.("input, textarea, select, [contenteditable=true]");
    if (event.key.toLowerCase() === "z" && !event.ctrlKey && !event.metaKey && !event.altKey && !typing)
      panning.value = true;
  });
  useEventListener(window, ["keyup", "blur"], () => (panning.value = false));
  return panning;
}
