<script setup lang="ts">
/** A number one can type: Enter keeps it, Escape brings the old one back, the arrow keys step. */
import { computed, nextTick, ref } from "vue";
import { parseNumber, readable } from "@/geometry/frames";

const props = withDefaults(
  defineProps<{
    /** In the model's own units. */
    value: number;
    label: string;
    unit?: string;
    /** Shown number for 1 in the model, 100 for percent. */
    shown?: number;
    step?: number;
    low?: number | null;
    high?: number | null;
    digits?: number;
    hint?: string;
    disabled?: boolean;
  }>(),
  { unit: "", shown: 1, step: 1, low: null, high: null, digits: 1, hint: "", disabled: false },
);
const emit = defineEmits<{ change: [value: number] }>();

const draft = ref<string | null>(null);
const wrong = ref(false);
const input = ref<HTMLInputElement>();
const text = computed(() => draft.value ?? readable(props.value * props.shown, props.digits));

const within = (value: number): number => Math.min(Math.max(value, props.low ?? -1e9), props.high ?? 1e9);

function keep(): void {
  if (draft.value === null) return;
  const typed = parseNumber(draft.value);
  if (typed === null) {
    wrong.value = true;
    return;
  }
  draft.value = null;
  wrong.value = false;
  const value = within(Number((typed / props.shown).toPrecision(12)));
  // What was typed is kept exactly; a field left as it was changes nothing.
  if (readable(value * props.shown, 6) !== readable(props.value * props.shown, props.digits)) emit("change", value);
}

function leave(): void {
  keep();
  if (wrong.value) drop();
}

function drop(): void {
  draft.value = null;
  wrong.value = false;
}

async function step(event: KeyboardEvent, direction: number): Promise<void> {
  const by = props.step * direction * (event.shiftKey ? 10 : 1);
  const from = draft.value === null ? props.value : (parseNumber(draft.value) ?? props.value * props.shown) / props.shown;
  draft.value = null;
  emit("change", within(Number((Math.round((from + by) / props.step) * props.step).toPrecision(10))));
  await nextTick();
  input.value?.select();
}
</script>

<template>
  <label class="field" :class="{ wrong }" :title="hint">
    <span class="sr-only">{{ label }}</span>
    <input
      ref="input"
      :value="text"
      :disabled="disabled"
      inputmode="decimal"
      spellcheck="false"
      autocomplete="off"
      role="spinbutton"
      :aria-valuenow="value * shown"
      :aria-invalid="wrong"
      @focus="input?.select()"
      @input="draft = ($event.target as HTMLInputElement).value"
      @keydown.enter.prevent="keep"
      @keydown.esc.stop="drop"
      @keydown.up.prevent="step($event, 1)"
      @keydown.down.prevent="step($event, -1)"
      @blur="leave"
    />
    <span v-if="unit" class="unit" aria-hidden="true">{{ unit }}</span>
  </label>
</template>

<style scoped>
.field { display: flex; align-items: baseline; gap: 2px; background: var(--paper-3); border-radius: var(--radius-s); padding: 3px 6px; min-width: 0; flex: 1; cursor: text; border: 1px solid transparent; }
.field:focus-within { border-color: var(--travel); background: var(--paper); }
.wrong { border-color: var(--playhead) !important; }
input { border: 0; background: none; padding: 0; width: 100%; min-width: 0; font: 12.5px var(--mono); color: inherit; outline: none; }
.unit { color: var(--ink-3); font-size: 11px; flex: none; }
</style>
