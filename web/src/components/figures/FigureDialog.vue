<script setup lang="ts">
/** Begin a figure: choose what it is like, what it is called and how high it stands. */
import { ElDialog } from "element-plus";
import { computed, nextTick, ref, watch } from "vue";
import NumberField from "@/components/common/NumberField.vue";
import StarterPicture from "@/components/figures/StarterPicture.vue";
import { useAdding } from "@/composables/troupe/useAdding";
import { useVocabulary } from "@/stores/vocabulary";

const open = defineModel<boolean>({ required: true });
const vocabulary = useVocabulary();
const { addFigure } = useAdding();
const starter = ref("two-legs");
const name = ref("");
const height = ref(190);
const drawn = ref(true);
const field = ref<HTMLInputElement>();
const starters = computed(() => vocabulary.words?.starters ?? []);
const chosen = computed(() => starters.value.find((one) => one.name === starter.value));

function choose(one: string): void {
  starter.value = one;
  height.value = Math.round(chosen.value?.height ?? 190);
}
watch(
  open,
  async (now) => {
    if (!now) return;
    name.value = "";
    choose(starter.value);
    // The dialog shows what is in it a tick after it is there itself.
    await nextTick();
    await nextTick();
    field.value?.focus({ preventScroll: true });
  },
  { immediate: true },
);
async function done(): Promise<void> {
  open.value = false;
  await addFigure(
    starter.value,
    name.value.trim() || (chosen.value?.label.split(",")[0] ?? "Figure"),
    height.value,
    drawn.value,
  );
}
</script>

<template>
  <ElDialog v-model="open" title="New figure" width="600" append-to-body>
    <div class="starters" role="radiogroup" aria-label="What it is like">
      <button
        v-for="one in starters"
        :key="one.name"
        role="radio"
        :aria-checked="one.name === starter"
        :class="{ on: one.name === starter }"
        :title="one.about"
        @click="choose(one.name)"
        @dblclick="done"
      >
        <StarterPicture :starter="one" />
        <strong>{{ one.label }}</strong>
        <span>{{ one.about }}</span>
      </button>
    </div>
    <div class="fields">
      <label
        >Name
        <input
          ref="field"
          v-model="name"
          class="name"
          aria-label="Name of the figure"
          maxlength="80"
          :placeholder="chosen?.label"
          @keydown.enter="done"
      /></label>
      <label class="high"
        >Height
        <NumberField
          label="Height of the figure"
          :value="height"
          unit="px"
          :step="1"
          :low="10"
          :high="2000"
          :digits="0"
          @change="height = $event"
      /></label>
      <label class="check" title="Without parts, attach your own objects to its bones"
        ><input v-model="drawn" type="checkbox" /> with drawn parts</label
      >
    </div>
    <template #footer>
      <button class="plain" @click="open = false">Cancel</button>
      <button class="primary" @click="done">Add to the scene</button>
    </template>
  </ElDialog>
</template>

<style scoped>
.starters {
  display: grid;
  grid-template-columns: repeat(4, 1fr);
  gap: 8px;
  margin-bottom: 14px;
}
.starters button {
  border: 1px solid var(--line);
  border-radius: var(--radius);
  background: var(--paper);
  padding: 8px 6px;
  cursor: pointer;
  display: grid;
  justify-items: center;
  gap: 3px;
  align-content: start;
}
.starters .on {
  border-color: var(--travel);
  background: var(--travel-pale);
}
.starters strong {
  font-size: 12.5px;
}
.starters span {
  font-size: 11.5px;
  color: var(--ink-2);
  line-height: 1.3;
}
.fields {
  display: flex;
  gap: 16px;
  align-items: center;
}
.fields label {
  display: flex;
  gap: 7px;
  align-items: center;
}
.name {
  border: 1px solid var(--line);
  border-radius: var(--radius-s);
  padding: 4px 8px;
  background: var(--paper);
  width: 170px;
  font: inherit;
}
.high {
  width: 148px;
}
.check {
  cursor: pointer;
}
</style>
