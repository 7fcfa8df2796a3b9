/** True once a value has been true: a dialog is mounted when it is first opened, and stays mounted. */
import { whenever } from "@vueuse/core";
import { readonly, type Ref, ref } from "vue";

export function useOnceTrue(source: () => boolean): Readonly<Ref<boolean>> {
  const once = ref(false);
  whenever(source, () => (once.value = true), { immediate: true, once: true, flush: "sync" });
  return readonly(once);
}
