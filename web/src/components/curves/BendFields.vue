<script setup lang="ts">
/** Tension, continuity and bias of the picked keys, or of all keys of the channel. */
import { computed } from "vue";
import type { Edit, Key } from "@/api/types";
import NumberField from "@/components/common/NumberField.vue";
import { useScene } from "@/stores/scene";
import { useSelection } from "@/stores/selection";

const props = defineProps<{ channel: string; keys: readonly Key[] }>();
const scene = useScene();
const selection = useSelection();

const meant = computed(() => {
  const picked = props.keys.filter((key) => selection.leaves.has(key.frame));
  return picked.length ? picked : props.keys;
});
const FIELDS = [
  { name: "tension" as const, about: "1 passes the key sharply and stops there, −1 swings wide" },
  { name: "continuity" as const, about: "0 is smooth; anything else makes a corner" },
  { name: "bias" as const, about: "Which side the curve leans to at the key" },
];

type Bend = "tension" | "continuity" | "bias";
const editsFor = (name: Bend, value: number): Edit[] =>
  selection.thing
    ? [
        {
          edit: "set-bend",
          object: selection.thing.id,
          channel: props.channel,
          frames: meant.value.map((key) => key.frame),
          [name]: value,
        },
      ]
    : [];
const set = (name: Bend, value: number): void => void scene.edit(editsFor(name, value));
/** While a field is dragged the curve answers. */
const scrub = (name: Bend, value: number | null): void =>
  value === null ? scene.letGo() : void scene.lookAt(editsFor(name, value));
</script>

<template>
  <div class="bends" role="group" :aria-label="selection.leaves.size ? 'Bend of the picked keys' : 'Bend of all keys'">
    <label v-for="field in FIELDS" :key="field.name" :title="field.about">
      <span>{{ field.name }}</span>
      <NumberField
        :label="field.name"
        :value="meant[0]?.[field.name] ?? 0"
        :low="-1"
        :high="1"
        :step="0.1"
        :digits="2"
        @scrub="scrub(field.name, $event)"
        @change="set(field.name, $event)"
      />
    </label>
  </div>
</template>

<style scoped>
.bends {
  display: grid;
  gap: 3px;
  padding: 2px;
  font-size: 12px;
}
label {
  display: grid;
  grid-template-columns: 70px 1fr;
  align-items: center;
}
</style>
