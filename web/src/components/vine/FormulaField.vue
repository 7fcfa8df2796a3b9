<script setup lang="ts">
/**
 * A formula one types, with names and functions offered as one goes, and what is wrong shown under the very character.
 */
import { holdsNumbers } from "@/api/channels";
import { computed, nextTick, ref, watch } from "vue";
import type { SceneObject } from "@/api/types";
import { offered, pieces, placeOf } from "@/geometry/formula";
import { useScene } from "@/stores/scene";
import { useVocabulary } from "@/stores/vocabulary";

const props = defineProps<{ formula: string; label: string; thing: SceneObject; wrong: string }>();
const emit = defineEmits<{ change: [formula: string] }>();
const scene = useScene();
const vocabulary = useVocabulary();
const field = ref<HTMLTextAreaElement>();
const behind = ref<HTMLElement>();
const text = ref(props.formula);
const caret = ref(props.formula.length);
watch(
  () => props.formula,
  (kept) => (text.value = kept),
);

const fault = computed(() => placeOf(props.wrong));
/** The text before the character that is wrong, itself, and after it: laid under what is typed to mark it. */
const marked = computed(() =>
  fault.value
    ? [
        text.value.slice(0, fault.value.at),
        text.value.slice(fault.value.at, fault.value.at + 1) || " ",
        text.value.slice(fault.value.at + 1),
      ]
    : null,
);
/**
 * What is typed, in colours, laid where the text of the field itself cannot be seen. A last new line needs something
 * after it to count.
 */
const coloured = computed(() => pieces(`${text.value} `, vocabulary.words?.functions ?? []));
const names = computed(() => [
  ...scene.objects
    .filter((one) => one.id !== props.thing.id)
    .flatMap((one) =>
      vocabulary
        .channelsOf(one)
        .filter(holdsNumbers)
        .map((channel) => `{${one.name}.${channel.name}}`),
    ),
  ...(scene.head?.dials ?? []).map((dial) => `{${dial.name}}`),
]);
const offers = computed(() => offered(text.value, caret.value, names.value, vocabulary.words?.functions ?? []));

function keep(): void {
  if (text.value.trim() !== props.formula) emit("change", text.value.trim());
}

/** Put what is offered in the place of what has been typed of it. */
async function take(offer: string): Promise<void> {
  const { start } = offers.value;
  text.value = text.value.slice(0, start) + offer + text.value.slice(caret.value);
  await nextTick();
  caret.value = start + offer.length;
  field.value?.focus();
  field.value?.setSelectionRange(caret.value, caret.value);
}
const moved = (): void => void (caret.value = field.value?.selectionStart ?? text.value.length);
</script>

<template>
  <div class="formula">
    <div class="box">
      <pre
        v-if="marked"
        class="under"
        aria-hidden="true">{{ marked[0] }}<mark>{{ marked[1] }}</mark>{{ marked[2] }}</pre>
      <pre
        ref="behind"
        class="under coloured"
        aria-hidden="true"
      ><span v-for="(piece, i) in coloured" :key="i" :class="piece.kind">{{ piece.text }}</span></pre>
      <textarea
        ref="field"
        v-model="text"
        rows="2"
        spellcheck="false"
        autocomplete="off"
        :aria-label="label"
        :aria-invalid="Boolean(wrong)"
        placeholder="-{Mill wheel.rotation} * 2"
        @scroll="behind && (behind.scrollTop = field!.scrollTop)"
        @input="moved"
        @click="moved"
        @keyup="moved"
        @keydown.enter.prevent="keep"
        @keydown.tab="offers.list.length && ($event.preventDefault(), take(offers.list[0]!))"
        @blur="keep"
      />
    </div>
    <p v-if="wrong" class="wrong" role="alert">{{ wrong }}</p>
    <div v-if="offers.list.length" class="offers" role="group" aria-label="Matching names">
      <button v-for="offer in offers.list" :key="offer" class="chip small" @mousedown.prevent="take(offer)">
        {{ offer }}
      </button>
    </div>
    <p v-else class="hint">
      Press Enter to apply. Numbers, t, f, value, + − * / % ^, <code>a if c else b</code>, functions,
      &#123;Name.channel&#125;, &#123;Name.x @ -6f&#125;.
    </p>
  </div>
</template>

<style scoped>
.box {
  position: relative;
}
textarea,
.under {
  width: 100%;
  margin: 0;
  padding: 6px 8px;
  border: 1px solid var(--line);
  border-radius: var(--radius-s);
  font: 13px/1.5 var(--mono);
  white-space: pre-wrap;
  overflow-wrap: anywhere;
  box-sizing: border-box;
}
textarea {
  position: relative;
  background: transparent;
  resize: vertical;
  color: transparent;
  caret-color: var(--ink);
  display: block;
}
textarea::placeholder {
  color: var(--ink-3);
}
.under {
  position: absolute;
  inset: 0;
  color: transparent;
  border-color: transparent;
  overflow: hidden;
}
.coloured {
  color: var(--ink);
}
.coloured .read {
  color: var(--look);
}
.coloured .function {
  color: var(--turn);
}
.coloured .number {
  color: var(--size);
}
.coloured .own {
  color: var(--travel);
}
.under mark {
  background: var(--playhead-pale);
  color: transparent;
  border-bottom: 2.5px solid var(--playhead);
}
.wrong {
  margin: 5px 0;
  font-size: 12px;
  color: #a32145;
  font-weight: 600;
}
.offers {
  display: flex;
  flex-wrap: wrap;
  gap: 4px;
  margin-top: 6px;
}
.offers .chip {
  font: 12px var(--mono);
}
.hint {
  margin: 5px 0 0;
  font-size: 11.5px;
  color: var(--ink-2);
}
code {
  font: 11.5px var(--mono);
}
</style>
