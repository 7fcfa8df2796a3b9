<script setup lang="ts">
/** Paint settings of the selected object: ends, corners and dashes of its stroke, and its blend mode. */
import { computed, ref } from "vue";
import { isShape } from "@/api/kinds";
import { numberAt } from "@/api/motion";
import type { TroupeObject } from "@/api/types";
import { chosenIn } from "@/components/common/chosen";
import GradientFields from "@/components/values/GradientFields.vue";
import { usePlayback } from "@/stores/playback";
import { useScene } from "@/stores/scene";

const props = defineProps<{ thing: TroupeObject }>();
const scene = useScene();
const playback = usePlayback();

const line = computed(() => (isShape(props.thing) ? props.thing.line : null));
const lined = computed(() => {
  const width = scene.motion?.objects.get(props.thing.id)?.channels["stroke.width"];
  return line.value !== null && width !== undefined && numberAt(width, playback.textFrame) > 0;
});
/** The names of CSS compositing, in the order that document has them. */
const BLENDS = [
  ["normal", "multiply", "screen", "overlay", "darken", "lighten", "color-dodge", "color-burn"],
  ["hard-light", "soft-light", "difference", "exclusion", "hue", "saturation", "color", "luminosity"],
].flat() as readonly TroupeObject["blend"][];
const set = (change: Partial<NonNullable<typeof line.value>>): void => {
  if (line.value) void scene.edit([{ edit: "set-line", id: props.thing.id, line: { ...line.value, ...change } }]);
};

const draft = ref<string | null>(null);
const wrong = ref(false);
function keepDash(): void {
  if (draft.value === null) return;
  const numbers = draft.value
    .split(/[\s,;]+/)
    .filter(Boolean)
    .map(Number);
  wrong.value =
    numbers.length > 8 ||
    numbers.some((one) => !(one >= 0 && one <= 10_000)) ||
    (numbers.length > 0 && numbers.reduce((a, b) => a + b, 0) < 0.1);
  if (wrong.value) return;
  draft.value = null;
  if (numbers.join(" ") !== line.value?.dash.join(" ")) set({ dash: numbers });
}
</script>

<template>
  <GradientFields v-if="thing.kind === 'shape'" :thing="thing" :lined="lined" />
  <div class="look" role="group" aria-label="Paint type">
    <template v-if="lined && line">
      <label title="End style"
        >ends
        <select
          class="choice"
          aria-label="Ends of the line"
          :value="line.cap"
          @change="set({ cap: chosenIn($event) as 'round' })"
        >
          <option value="round">round</option>
          <option value="butt">cut off</option>
          <option value="square">square</option>
        </select></label
      >
      <label title="Corner style"
        >corners
        <select
          class="choice"
          aria-label="Corners of the line"
          :value="line.join"
          @change="set({ join: chosenIn($event) as 'round' })"
        >
          <option value="round">round</option>
          <option value="miter">pointed</option>
          <option value="bevel">cut off</option>
        </select></label
      >
      <label
        title="Lengths of dashes and gaps in px, such as 18 10; leave empty for a solid line. Key the row Dashes to make them travel"
        >dashes
        <input
          class="choice"
          :value="draft ?? line.dash.join(' ')"
          :class="{ wrong }"
          aria-label="Dashes of the line"
          placeholder="none"
          @input="draft = ($event.target as HTMLInputElement).value"
          @keydown.enter.prevent="keepDash"
          @keydown.esc.stop="draft = null"
          @blur="keepDash"
      /></label>
    </template>
    <label title="How the object and its attached objects blend with the layers below (CSS blend modes)"
      >blends
      <select
        class="choice"
        aria-label="Blend mode"
        :value="thing.blend"
        @change="scene.edit([{ edit: 'set-blend', id: thing.id, blend: chosenIn($event) as 'normal' }])"
      >
        <option v-for="blend in BLENDS" :key="blend" :value="blend">{{ blend }}</option>
      </select></label
    >
  </div>
</template>

<style scoped>
.look {
  display: flex;
  flex-wrap: wrap;
  gap: 6px 10px;
  margin: 8px 14px 0;
  font-size: 12px;
}
label {
  display: flex;
  align-items: center;
  gap: 5px;
}
input {
  width: 62px;
}
.wrong {
  border-color: var(--playhead);
}
</style>
