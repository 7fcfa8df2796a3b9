<script setup lang="ts">
/** Choose what happens before the first key and after the last. */
import { computed } from "vue";
import { channelOf, keysOf } from "@/api/channels";
import type { Edit, End, EndMode, SceneObject } from "@/api/types";
import NumberField from "@/components/common/NumberField.vue";
import PopUp from "@/components/common/PopUp.vue";
import EndPicture from "@/components/vine/EndPicture.vue";
import { useScene } from "@/stores/scene";
import { useSelection } from "@/stores/selection";
import { namesOf, type Row, useVocabulary } from "@/stores/vocabulary";

const props = defineProps<{ thing: SceneObject; row: Row }>();
const scene = useScene();
const selection = useSelection();
const vocabulary = useVocabulary();

/** An end belongs to the whole row: x and y turn together. */
const keyed = computed(() => props.row.channels.filter((channel) => keysOf(props.thing, channel.name).length > 1));
const SIDES = [
  { side: "after" as const, label: "After the last key" },
  { side: "before" as const, label: "Before the first key" },
];
/** Words change all at once: they cannot go on at a speed, nor climb. */
const modes = computed(() => {
  const words = keyed.value.some((channel) => channel.unit === "words");
  return (vocabulary.words?.ends ?? []).filter((end) => end.for_words || !words);
});
const endOf = (side: "before" | "after"): End =>
  channelOf(props.thing, keyed.value[0]?.name ?? "")?.[side] ?? { mode: "hold", times: null };

async function set(side: "before" | "after", end: End): Promise<void> {
  // With several picked, what has two keys on the same channels ends so too.
  const names = namesOf(props.row);
  const others = selection.others.flatMap((thing) =>
    names.filter((name) => keysOf(thing, name).length > 1).map((channel) => ({ object: thing.id, channel })),
  );
  const own = keyed.value.map((channel) => ({ object: props.thing.id, channel: channel.name }));
  await scene.edit([...own, ...others].map((one): Edit => ({ edit: "set-ends", ...one, [side]: end })));
}

const choose = (side: "before" | "after", mode: EndMode) => set(side, { mode, times: endOf(side).times ?? null });
const times = (side: "before" | "after", count: number | null) => set(side, { mode: endOf(side).mode, times: count });
</script>

<template>
  <PopUp :width="452" placement="top-start">
    <template #reference>
      <button
        class="chip small"
        data-open="ends"
        :disabled="!keyed.length"
        :title="
          keyed.length ? 'Choose what happens before and after the keys' : 'Ends need two keys. Set another key first.'
        "
      >
        Ends
      </button>
    </template>
    <div v-for="{ side, label } in SIDES" :key="side" class="side" data-menu="ends">
      <header>
        <h3>{{ label }}</h3>
        <div v-if="endOf(side).mode !== 'hold'" class="times">
          <label
            ><input
              type="checkbox"
              :checked="endOf(side).times === null"
              @change="times(side, ($event.target as HTMLInputElement).checked ? null : 1)"
            />
            for ever</label
          >
          <NumberField
            v-if="endOf(side).times !== null"
            :label="`${label}: how many times`"
            :value="endOf(side).times ?? 1"
            unit="times"
            :digits="0"
            :low="0"
            :high="1000000"
            @change="times(side, Math.round($event))"
          />
        </div>
      </header>
      <div class="choices" role="radiogroup" :aria-label="label">
        <button
          v-for="end in modes"
          :key="end.mode"
          role="radio"
          :aria-checked="endOf(side).mode === end.mode"
          :class="{ on: endOf(side).mode === end.mode }"
          :title="end.about"
          @click="choose(side, end.mode)"
        >
          <EndPicture :mode="end.mode" :mirrored="side === 'before'" />
          {{ end.label }}
        </button>
      </div>
    </div>
  </PopUp>
</template>

<style scoped>
.side + .side {
  margin-top: 12px;
}
header {
  display: flex;
  justify-content: space-between;
  align-items: center;
  height: 30px;
}
h3 {
  font-size: 13px;
}
.times {
  display: flex;
  align-items: center;
  gap: 8px;
  font-size: 12px;
}
.times label {
  display: flex;
  gap: 4px;
  align-items: center;
  white-space: nowrap;
}
.times .field {
  width: 92px;
}
.choices {
  grid-template-columns: repeat(5, 1fr);
}
</style>
