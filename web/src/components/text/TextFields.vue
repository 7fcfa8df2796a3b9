<script setup lang="ts">
/** What a text says and how it is set: words, font, weight, alignment, wrapping. */
import { ElOption, ElSelect } from "element-plus";
import { computed, ref, shallowRef } from "vue";
import { api } from "@/api/client";
import type { FontWords, ShapeThing, TextShape } from "@/api/types";
import NumberField from "@/components/common/NumberField.vue";
import FontDialog from "@/components/text/FontDialog.vue";
import { useOnceTrue } from "@/composables/useOnceTrue";
import FontSample from "@/components/text/FontSample.vue";
import WordsField from "@/components/text/WordsField.vue";
import { useText } from "@/composables/useText";
import { usePlayback } from "@/stores/playback";
import { useScene } from "@/stores/scene";

const props = defineProps<{ thing: ShapeThing; shape: TextShape }>();
const scene = useScene();
const playback = usePlayback();
const text = useText();
const fonts = shallowRef<readonly FontWords[]>([]);
void api.fonts().then((all) => (fonts.value = all));

const WEIGHTS: Record<number, string> = {
  100: "Hairline",
  200: "Extra light",
  300: "Light",
  400: "Regular",
  500: "Medium",
  600: "Half bold",
  700: "Bold",
  800: "Extra bold",
  900: "Black",
};
const ALIGN = [
  { align: "left", says: "left", path: "M3 4h14M3 8h9M3 12h12M3 16h7" },
  { align: "middle", says: "middle", path: "M3 4h14M5.500 8h9M4 12h12M6.500 16h7" },
  { align: "right", says: "right", path: "M3 4h14M8 8h9M5 12h12M10 16h7" },
] as const;
const font = computed(() => fonts.value.find((one) => one.name === props.shape.font));
const missing = computed(() => scene.motion?.objects.get(props.thing.id)?.missing ?? []);
const said = computed(() => text.saidBy(props.thing));
const set = (change: Partial<TextShape>): void => void text.set(props.thing.id, change);

const own = computed(() => scene.head?.own_fonts ?? []);
const weightsOf = (name: string): readonly number[] =>
  fonts.value.find((one) => one.name === name)?.weights ?? own.value.find((one) => one.id === name)?.weights ?? [];
const weights = computed(() => {
  const found = weightsOf(props.shape.font);
  return found.length ? found : [props.shape.weight];
});
const bringing = ref(false);
const bringMounted = useOnceTrue(() => bringing.value);

function setFont(name: string): void {
  if (name === "bring") {
    bringing.value = true;
    return;
  }
  const weights = weightsOf(name);
  const nearest = weights.reduce(
    (best, one) => (Math.abs(one - props.shape.weight) < Math.abs(best - props.shape.weight) ? one : best),
    weights[0] ?? 400,
  );
  set({ font: name, weight: nearest });
}
</script>

<template>
  <div class="text" role="group" aria-label="Text">
    <WordsField :id="thing.id" :words="said" label="Words" :rows="Math.min(5, said.split('\n').length + 1)" />
    <p v-if="missing.length" class="missing" role="status">
      No font here has {{ missing.slice(0, 6).join(" ") }}{{ missing.length > 6 ? " and others" : "" }}; a box stands in
      {{ missing.length === 1 ? "its" : "their" }} place.
    </p>
    <div class="line">
      <ElSelect
        class="font"
        size="small"
        aria-label="Font"
        :model-value="shape.font"
        :teleported="true"
        @update:model-value="setFont"
      >
        <template #label
          ><FontSample v-if="font" :font="font" :height="17" /><span v-else>{{
            own.find((one) => one.id === shape.font)?.name
          }}</span></template
        >
        <ElOption v-for="one in fonts" :key="one.name" :value="one.name" :label="one.label" :title="one.about">
          <FontSample :font="one" :height="22" />
        </ElOption>
        <ElOption v-for="one in own" :key="one.id" :value="one.id" :label="one.name" :title="one.licence" />
        <ElOption value="bring" label="Own font file…" title="A TrueType or OpenType file, kept with the scene" />
      </ElSelect>
      <select
        aria-label="Weight"
        :value="shape.weight"
        @change="set({ weight: Number(($event.target as HTMLSelectElement).value) })"
      >
        <option v-for="weight in weights" :key="weight" :value="weight">
          {{ WEIGHTS[weight] ?? weight }}
        </option>
      </select>
    </div>
    <div class="line">
      <div class="aligns" role="radiogroup" aria-label="Align">
        <button
          v-for="one in ALIGN"
          :key="one.align"
          role="radio"
          :aria-checked="shape.align === one.align"
          :aria-label="`Align ${one.says}`"
          :title="`Lines meet at the ${one.says}, where the object has its own middle`"
          @click="set({ align: one.align })"
        >
          <svg viewBox="0 0 20 20" aria-hidden="true"><path :d="one.path" /></svg>
        </button>
      </div>
      <template v-if="shape.wrap">
        <NumberField
          label="Wrap at"
          unit="px"
          :value="shape.wrap"
          :low="1"
          :high="100000"
          hint="The most a line may be wide; longer ones go on in the next"
          @change="set({ wrap: $event })"
        />
        <button class="quiet" aria-label="Do not wrap" title="No line wrapping" @click="set({ wrap: null })">×</button>
      </template>
      <button v-else class="chip" title="Wrap lines that become too wide" @click="set({ wrap: 480 })">Wrap</button>
      <button
        class="chip"
        title="Turn it into a plain outline that looks as it does now; its words can then no longer be changed"
        @click="scene.edit([{ edit: 'make-outline', id: thing.id, frame: playback.frame }])"
      >
        Outline it
      </button>
    </div>
    <FontDialog v-if="bringMounted" :id="thing.id" v-model="bringing" :shape="shape" />
  </div>
</template>

<style scoped>
.text {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 6px;
  padding: 2px 14px 8px;
}
.line {
  display: flex;
  gap: 6px;
  align-items: center;
}
.font {
  flex: 1;
  min-width: 0;
}
.missing {
  margin: 0;
  color: var(--hibiscus);
  font-size: 12px;
}
select {
  width: 92px;
  font-size: 12px;
  padding: 3px 2px;
}
.aligns {
  display: flex;
  border: 1px solid var(--line);
  border-radius: var(--radius-s);
  overflow: hidden;
}
.aligns button {
  border: 0;
  background: none;
  padding: 3px 5px;
  line-height: 0;
}
.aligns button[aria-checked="true"] {
  background: var(--paper-3);
}
.aligns svg {
  width: 15px;
  height: 15px;
}
.aligns path {
  stroke: var(--ink);
  stroke-width: 1.6;
  fill: none;
}
</style>
