<script setup lang="ts">
/** Exact numbers of the picked key: its frame, its value, its handles. With several picked, the value of all. */
import { computed } from "vue";
import type { Edit, Key } from "@/api/types";
import NumberField from "@/components/common/NumberField.vue";
import type { KeyedCurve } from "@/composables/curves/useKeyedCurves";
import { usePicks } from "@/stores/picks";
import { useScene } from "@/stores/scene";
import { useSelection } from "@/stores/selection";

const props = defineProps<{ curves: readonly KeyedCurve[] }>();
const scene = useScene();
const selection = useSelection();
const picks = usePicks();

const meant = computed(() =>
  props.curves
    .filter((one) => one.isNumber)
    .flatMap((one) =>
      one.keys
        .filter((key) => picks.has(selection.objectId ?? "", one.words.name, key.frame))
        .map((key) => ({ one, key })),
    ),
);
const lone = computed(() => (meant.value.length === 1 ? meant.value[0]! : null));
const handles = computed(() => {
  if (!lone.value) return [];
  const { one, key } = lone.value;
  const i = one.keys.indexOf(key);
  return (["in", "out"] as const).filter((side) =>
    side === "out" ? key.ease === "handles" && i < one.keys.length - 1 : one.keys[i - 1]?.ease === "handles",
  );
});

async function setFrame(key: Key, channel: string, frame: number): Promise<void> {
  const object = selection.objectId ?? "";
  if (await scene.edit([{ edit: "move-keys", object, channel, frames: [key.frame], by: frame - key.frame }]))
    picks.set([{ object, channel, frames: [frame] }]);
}

const valueEdits = (value: number): Edit[] =>
  meant.value.map(({ one, key }): Edit => ({
    edit: "set-key",
    object: selection.objectId ?? "",
    channel: one.words.name,
    frame: key.frame,
    value,
  }));
const setValue = (value: number): void => void scene.edit(valueEdits(value));
const scrubValue = (value: number | null): void =>
  value === null ? scene.letGo() : void scene.lookAt(valueEdits(value));

function handleAt(side: "in" | "out"): readonly [number, number] {
  const { one, key } = lone.value!;
  const to = one.keys[one.keys.indexOf(key) + (side === "out" ? 1 : -1)] ?? key;
  return key[side] ?? [(to.frame - key.frame) / 3, (Number(to.value) - Number(key.value)) / 3];
}

function setHandle(side: "in" | "out", part: 0 | 1, value: number): void {
  const next: [number, number] = [...handleAt(side)];
  next[part] = value;
  const { one, key } = lone.value!;
  void scene.edit([
    { edit: "set-handles", object: selection.objectId ?? "", channel: one.words.name, frame: key.frame, [side]: next },
  ]);
}
</script>

<template>
  <div v-if="meant.length" class="fields" role="group" aria-label="Picked keys in numbers">
    <template v-if="lone">
      <span>frame</span>
      <NumberField
        label="Frame of the key"
        :value="lone.key.frame"
        :digits="2"
        @change="setFrame(lone.key, lone.one.words.name, $event)"
      />
    </template>
    <span>value</span>
    <NumberField
      :label="lone ? 'Value of the key' : `Value of ${meant.length} keys`"
      :value="Number(meant[0]!.key.value)"
      :shown="meant[0]!.one.words.shown"
      :unit="meant[0]!.one.words.unit"
      :step="meant[0]!.one.words.step"
      :digits="2"
      @scrub="scrubValue"
      @change="setValue"
    />
    <template v-for="side in handles" :key="side">
      <span>{{ side }}</span>
      <div class="pair">
        <NumberField
          :label="`${side} handle, frames`"
          :value="handleAt(side)[0]"
          unit="f"
          :digits="2"
          @change="setHandle(side, 0, $event)"
        />
        <NumberField
          :label="`${side} handle, value`"
          :value="handleAt(side)[1]"
          :shown="lone!.one.words.shown"
          :unit="lone!.one.words.unit"
          :digits="2"
          @change="setHandle(side, 1, $event)"
        />
      </div>
    </template>
  </div>
</template>

<style scoped>
.fields {
  display: grid;
  grid-template-columns: 44px minmax(0, 1fr);
  gap: 3px;
  padding: 4px 2px 2px;
  align-items: center;
  font-size: 12px;
}
.pair {
  display: flex;
  gap: 3px;
  min-width: 0;
}
</style>
