<script setup lang="ts">
/** A name that is being changed: Enter or leaving the field takes it, Escape leaves the old one. */
const props = defineProps<{ name: string }>();
/** `done` receives the new name, or null to keep the old one. */
const emit = defineEmits<{ done: [name: string | null] }>();

let told = false;
function finish(typed: string | null): void {
  // A field that is taken away is left once more.
  if (told) return;
  told = true;
  const name = typed?.trim();
  emit("done", name && name !== props.name ? name : null);
}
const typed = (event: Event): string => (event.target as HTMLInputElement).value;
</script>

<template>
  <input
    :value="name"
    maxlength="80"
    :aria-label="`New name of ${name}`"
    @vue:mounted="({ el }: { el: HTMLInputElement }) => el.select()"
    @keydown.enter="finish(typed($event))"
    @keydown.esc.stop="finish(null)"
    @blur="finish(typed($event))"
  />
</template>

<style scoped>
input {
  min-width: 0;
  font: 600 13px var(--text);
  border: 1px solid var(--travel);
  border-radius: var(--radius-s);
  background: var(--paper);
  color: var(--ink);
  padding: 1px 5px;
}
</style>
