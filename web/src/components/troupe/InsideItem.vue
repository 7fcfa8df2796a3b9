<script setup lang="ts">
/** An object inside an inset, as the troupe outside lists it: a click goes inside to it. */
import VineIcon, { type IconName } from "@/components/common/VineIcon.vue";
import type { InnerWords } from "@/api/types";
import { useInside } from "@/stores/inside";
import { useVocabulary } from "@/stores/vocabulary";

defineProps<{ use: string; part: InnerWords["parts"][number]; depth: number }>();
const inside = useInside();
const vocabulary = useVocabulary();
</script>

<template>
  <li
    class="inside"
    role="treeitem"
    :aria-level="depth + 1"
    :aria-selected="false"
    :aria-label="`${part.name}, inside`"
    tabindex="0"
    :title="`${part.name} is inside: a click goes there`"
    :style="{ paddingLeft: `${14 + depth * 16}px` }"
    @click="inside.enter(use, part.id)"
    @keydown.enter.prevent="inside.enter(use, part.id)"
  >
    <VineIcon :name="(vocabulary.words?.kinds.find((one) => one.name === part.kind)?.icon ?? 'ellipse') as IconName" />
    <span>{{ part.name }}</span>
  </li>
</template>

<style scoped>
.inside {
  display: flex;
  align-items: center;
  gap: 8px;
  height: 36px;
  border-radius: 99px 12px 12px 99px;
  color: var(--ink-2);
  cursor: pointer;
  font-style: italic;
}
.inside:hover,
.inside:focus-visible {
  background: var(--paper-2);
}
.inside span {
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.icon {
  width: 16px;
  height: 16px;
  flex: none;
}
</style>
