<script setup lang="ts">
/**
 * A number that several objects have: what is typed is for all of them, +20 for each what it has and 20 more; dragged
 * sideways it changes each by as much.
 */
import { computed, ref } from "vue";
import type { SharedChannel } from "@/composables/useSharedRows";
import { beginDrag } from "@/composables/useDrag";
import { readable } from "@/geometry/frames";
import { type TypedChange, typedChange } from "@/geometry/together";

const props = defineProps<{ label: string; channel: SharedChannel; unit: string; digits: number }>();
/** `look` shows a change while it is dragged, or nothing more where it was called off. */
const emit = defineEmits<{ change: [wish: TypedChange]; look: [wish: TypedChange | null] }>();

const draft = ref<string | null>(null);
const wrong = ref(false);
const input = ref<HTMLInputElement>();
const words = computed(() => props.channel.words);
const shown = (value: number): string => readable(value * words.value.shown, props.digits);
const text = computed(() => draft.value ?? (props.channel.number === null ? "" : shown(props.channel.number)));
const hint = computed(() => {
  const mixed =
    props.channel.number === null ? `From ${shown(props.channel.from)} to ${shown(props.channel.to)}. ` : "";
  return `${mixed}${words.value.label}: ${words.value.about} Type a number for all, or +20, +-20, *2, /2 for what each has.`;
});

function keep(): void {
  if (draft.value === null || !draft.value.trim()) return drop();
  const wish = typedChange(draft.value, words.value.shown);
  wrong.value = wish === null;
  if (!wish) return;
  drop();
  emit("change", wish);
}
function drop(): void {
  draft.value = null;
  wrong.value = false;
}
function leave(): void {
  keep();
  drop();
}
function escape(event: KeyboardEvent): void {
  if (draft.value !== null) event.stopPropagation();
  drop();
}
const step = (event: KeyboardEvent, direction: number): void =>
  emit("change", { how: "add", value: words.value.step * direction * (event.shiftKey ? 10 : 1) });

/** How far a press goes before it changes anything, px. */
const SLACK = 4;
function press(event: PointerEvent): void {
  if (event.button !== 0 || document.activeElement === input.value) return;
  let by: number | null = null;
  beginDrag(event, {
    move: (e) => {
      const far = e.clientX - event.clientX;
      if (by === null && Math.abs(far) < SLACK) return;
      input.value?.blur();
      by = Number((far * words.value.step * (e.shiftKey ? 10 : e.altKey ? 0.1 : 1)).toPrecision(10));
      emit("look", { how: "add", value: by });
    },
    end: (kept) => {
      if (by === null) return void input.value?.focus();
      if (kept) emit("change", { how: "add", value: by });
      else emit("look", null);
    },
  });
}
</script>

<template>
  <label class="field number-field" :class="{ wrong }" :title="hint" @pointerdown="press">
    <span class="sr-only">{{ label }}</span>
    <input
      ref="input"
      :value="text"
      :placeholder="channel.number === null ? 'mixed' : ''"
      inputmode="decimal"
      spellcheck="false"
      autocomplete="off"
      role="spinbutton"
      :aria-valuenow="channel.number === null ? undefined : channel.number * words.shown"
      :aria-valuetext="channel.number === null ? 'mixed' : undefined"
      :aria-invalid="wrong"
      @focus="input?.select()"
      @input="draft = ($event.target as HTMLInputElement).value"
      @keydown.enter.prevent="keep"
      @keydown.esc="escape"
      @keydown.up.prevent="step($event, 1)"
      @keydown.down.prevent="step($event, -1)"
      @blur="leave"
    />
    <span v-if="unit" class="unit" aria-hidden="true">{{ unit }}</span>
  </label>
</template>

<style scoped>
.field {
  touch-action: none;
}
input::placeholder {
  font: italic 12.5px var(--text);
  color: var(--ink-2);
  opacity: 1;
}
</style>
