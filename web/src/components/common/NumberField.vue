<script setup lang="ts">
/**
 * A number one can type, with simple arithmetic, or scrub by dragging it sideways. Enter keeps it, Escape brings the
 * old one back, the arrow keys step.
 */
import { computed, nextTick, ref } from "vue";
import { beginDrag } from "@/composables/useDrag";
import { calculate } from "@/geometry/arithmetic";
import { readable } from "@/geometry/frames";

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
    /** Hand on what is typed even where it lies beyond the limits, for whoever can say what is wrong with it. */
    asTyped?: boolean;
  }>(),
  { unit: "", shown: 1, step: 1, low: null, high: null, digits: 1, hint: "", disabled: false, asTyped: false },
);
/**
 * `scrub` tells of each number passed while the field is dragged, and of null when that is called off; `change` of the
 * last one.
 */
const emit = defineEmits<{ change: [value: number]; scrub: [value: number | null] }>();

const draft = ref<string | null>(null);
const wrong = ref(false);
const scrubbed = ref<number | null>(null);
const input = ref<HTMLInputElement>();
const text = computed(() => draft.value ?? readable((scrubbed.value ?? props.value) * props.shown, props.digits));

const within = (value: number): number => Math.min(Math.max(value, props.low ?? -1e9), props.high ?? 1e9);

function keep(): void {
  if (draft.value === null) return;
  const typed = calculate(draft.value, Number((props.value * props.shown).toPrecision(9)));
  if (typed === null) {
    wrong.value = true;
    return;
  }
  draft.value = null;
  wrong.value = false;
  const exact = Number((typed / props.shown).toPrecision(12));
  const value = props.asTyped ? exact : within(exact);
  // What was typed is kept exactly; a field left unchanged changes nothing.
  if (readable(value * props.shown, 6) !== readable(props.value * props.shown, props.digits)) emit("change", value);
}

function leave(): void {
  keep();
  if (wrong.value) drop();
}

/** Escape first gives up what was typed; with nothing typed it is for what the field is in. */
function leaveTyping(event: KeyboardEvent): void {
  if (draft.value !== null) event.stopPropagation();
  drop();
}

function drop(): void {
  draft.value = null;
  wrong.value = false;
}

async function stepBy(event: KeyboardEvent, direction: number): Promise<void> {
  const by = props.step * direction * (event.shiftKey ? 10 : 1);
  const from =
    draft.value === null
      ? props.value
      : (calculate(draft.value, props.value * props.shown) ?? props.value * props.shown) / props.shown;
  draft.value = null;
  emit("change", within(Number((Math.round((from + by) / props.step) * props.step).toPrecision(10))));
  await nextTick();
  input.value?.select();
}

/** How far a press goes before it scrubs, in pixels. */
const SLACK = 4;

/** Drag sideways to scrub: a step a pixel, ten with Shift, a tenth with Alt. A press that stays is a click to type. */
function press(event: PointerEvent): void {
  if (event.button !== 0 || props.disabled || document.activeElement === input.value) return;
  const [from, was] = [event.clientX, props.value];
  const field = event.currentTarget as HTMLElement;
  const fine = props.step >= 1 ? 0.1 : props.step / 10;
  const move = (e: PointerEvent): void => {
    if (scrubbed.value === null) {
      if (Math.abs(e.clientX - from) < SLACK) return;
      input.value?.blur();
    }
    const by = (e.clientX - from) * props.step * (e.shiftKey ? 10 : e.altKey ? 0.1 : 1);
    scrubbed.value = within(Number((Math.round((was + by) / fine) * fine).toPrecision(10)));
    emit("scrub", scrubbed.value);
  };
  const end = (kept: boolean): void => {
    const last = scrubbed.value;
    scrubbed.value = null;
    if (last === null) return;
    // The click that ends a scrub does not begin to type.
    field.addEventListener("click", (e) => e.preventDefault(), { once: true });
    if (kept) emit("change", last);
    else emit("scrub", null);
  };
  beginDrag(event, { move, end });
}
</script>

<template>
  <label class="field number-field" :class="{ wrong, scrubbing: scrubbed !== null }" :title="hint" @pointerdown="press">
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
      @keydown.esc="leaveTyping"
      @keydown.up.prevent="stepBy($event, 1)"
      @keydown.down.prevent="stepBy($event, -1)"
      @blur="leave"
    />
    <span v-if="unit" class="unit" aria-hidden="true">{{ unit }}</span>
  </label>
</template>
