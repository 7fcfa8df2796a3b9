import { expect, it } from "vitest";
import { ref } from "vue";
import { useOnceTrue } from "@/composables/useOnceTrue";

it("is true from the first time on", () => {
  const open = ref(false);
  const mounted = useOnceTrue(() => open.value);
  expect(mounted.value).toBe(false);
  open.value = true;
  expect(mounted.value).toBe(true);
  open.value = false;
  expect(mounted.value).toBe(true);
});

it("is true at once where it begins so", () => {
  expect(useOnceTrue(() => true).value).toBe(true);
});
