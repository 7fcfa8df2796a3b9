<script setup lang="ts">
/**
 * The words of a text: shown in the picture with every letter typed, kept on leaving the field or with Ctrl+Enter;
 * Escape brings the old ones back.
 */
import { onMounted, ref, watch } from "vue";
import { useText } from "@/composables/useText";

const props = defineProps<{ id: string; words: string; label: string; rows?: number; focused?: boolean }>();
const emit = defineEmits<{ done: [] }>();
const text = useText();
const draft = ref(props.words);
const field = ref<HTMLTextAreaElement>();
let given = false;
watch(
  () => [props.id, props.words],
  () => (draft.value = props.words),
);

function done(): void {
  if (given) return;
  given = true;
  void text.set(props.id, { text: draft.value });
  emit("done");
  queueMicrotask(() => (given = false));
}

function giveUp(): void {
  draft.value = props.words;
  done();
}

onMounted(() => {
  if (!props.focused) return;
  field.value?.focus();
  field.value?.select();
});
</script>

<template>
  <textarea
    ref="field"
    v-model="draft"
    :aria-label="label"
    :rows="rows ?? 2"
    maxlength="2000"
    dir="auto"
    spellcheck="false"
    title="{number} shows the value Number, {number:,.1f} with one decimal. Ctrl+Enter keeps the text, Escape brings the old one back."
    @input="text.show(id, { text: draft })"
    @keydown.stop
    @keydown.ctrl.enter.exact.prevent="field?.blur()"
    @keydown.meta.enter.exact.prevent="field?.blur()"
    @keydown.esc.exact.prevent="giveUp"
    @blur="done"
  />
</template>

<style scoped>
textarea {
  box-sizing: border-box;
  width: 100%;
  min-height: 30px;
  resize: vertical;
  border: 1px solid var(--line);
  border-radius: var(--radius-s);
  background: var(--paper);
  color: var(--ink);
  font: inherit;
  padding: 4px 7px;
}
</style>
