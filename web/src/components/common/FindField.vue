<script setup lang="ts">
/** A field to narrow a long menu down by typing; Enter takes the first that is left. */
defineProps<{ label: string }>();
const typed = defineModel<string>({ required: true });
const emit = defineEmits<{ take: [] }>();
</script>

<template>
  <input
    v-model="typed"
    type="search"
    class="find"
    placeholder="Type to find one"
    :aria-label="label"
    spellcheck="false"
    @keydown.enter.prevent="emit('take')"
  />
</template>

<style scoped>
.find {
  font: inherit;
  font-size: 12px;
  width: 180px;
  padding: 3px 8px;
  border: 1px solid var(--line);
  border-radius: var(--radius-s);
  background: var(--paper);
  color: var(--ink);
}
</style>
