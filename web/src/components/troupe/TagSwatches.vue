<script setup lang="ts">
/** The colours that mark objects in lists, to choose one or none. */
import { TAGS } from "@/geometry/tags";

defineProps<{
  tag: string | null;
  /** Whether it is one of the entries of a menu. */
  inMenu?: boolean;
}>();
const emit = defineEmits<{ choose: [tag: string | null] }>();
</script>

<template>
  <div class="tags" :role="inMenu ? 'group' : 'radiogroup'" aria-label="Colour tag">
    <button
      v-for="one in TAGS"
      :key="one.name"
      type="button"
      :role="inMenu ? 'menuitemradio' : 'radio'"
      class="tag"
      :aria-checked="tag === one.colour"
      :aria-label="`Tag: ${one.name}`"
      :title="`Mark it ${one.name} in troupe and time sheet`"
      :style="{ '--tag': one.colour }"
      @click="emit('choose', one.colour)"
    />
    <button
      type="button"
      :role="inMenu ? 'menuitemradio' : 'radio'"
      class="tag none"
      :aria-checked="tag === null"
      aria-label="Tag: none"
      title="No mark"
      @click="emit('choose', null)"
    />
  </div>
</template>

<style scoped>
.tags {
  display: flex;
  gap: 6px;
  align-items: center;
  padding: 2px 0;
}
.tag {
  width: 18px;
  height: 18px;
  padding: 0;
  border: 2px solid var(--paper);
  border-radius: 50% 50% 50% 4px;
  background: var(--tag);
  cursor: pointer;
  box-shadow: 0 0 0 1px var(--line);
}
.tag[aria-checked="true"] {
  box-shadow: 0 0 0 2px var(--ink);
}
.none {
  background: linear-gradient(135deg, var(--paper) 46%, var(--ink-3) 46% 54%, var(--paper) 54%);
}
</style>
