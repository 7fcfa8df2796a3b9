/** Who drives whom in the scene, as the service reads it off its rules. */
import { defineStore } from "pinia";
import { computed, shallowRef, watch } from "vue";
import { api } from "@/api/client";
import type { Drive } from "@/api/types";
import { useNewest } from "@/composables/useNewest";
import { withParts } from "@/picture/boxes";
import { useScene } from "@/stores/scene";

export const useDrives = defineStore("drives", () => {
  const scene = useScene();
  const all = shallowRef<readonly Drive[]>([]);

  const beginAsking = useNewest();
  watch(
    () => [scene.id, scene.revision] as const,
    async ([id]) => {
      const isNewest = beginAsking();
      // Only rules make one object drive another.
      if (!id || !scene.objects.some((one) => one.rules.length)) {
        all.value = [];
        return;
      }
      const found = await api.drives(id).catch(() => null);
      if (found && isNewest()) all.value = found.drives;
    },
    { immediate: true },
  );

  /** Who moves whom: all but the ground that something is on, which moves nobody. */
  const moving = computed(() => all.value.filter((one) => one.kind !== "gait" || one.setting));

  /** What reads an object with its descendants, or a dial, from outside. */
  function readersOf(id: string): readonly Drive[] {
    const own = new Set(withParts(id, scene.parts));
    return all.value.filter((one) => own.has(one.driver.object) && !own.has(one.driven.object));
  }

  return { all, moving, readersOf };
});
