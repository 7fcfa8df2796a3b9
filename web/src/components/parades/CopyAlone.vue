<script setup lang="ts">
/**
 * What one copy of a parade alone has, whatever the lists say: "this one is red". A click on a copy of the picked
 * parade chooses it.
 */
import { WORDS } from "@/api/channels";
import { writtenAt, valuesAt } from "@/api/motion";
import type { ChannelWords, Parade, SceneObject } from "@/api/types";
import NumberField from "@/components/common/NumberField.vue";
import ColourField from "@/components/values/ColourField.vue";
import { usePartPlaces } from "@/composables/usePartPlaces";
import { textOf } from "@/composables/useText";
import { rgbaOf, hexOf } from "@/geometry/colour";
import { usePlayback } from "@/stores/playback";
import { useScene } from "@/stores/scene";
import { useSelection } from "@/stores/selection";
import { useVocabulary } from "@/stores/vocabulary";

type Overrule = Parade["overrules"][number];
const props = defineProps<{ overrules: readonly Overrule[]; parts: readonly SceneObject[]; count: number }>();
const emit = defineEmits<{ change: [overrules: Overrule[]] }>();
const scene = useScene();
const playback = usePlayback();
const selection = useSelection();
const vocabulary = useVocabulary();

const specOf = (one: Overrule): ChannelWords | undefined =>
  vocabulary.channelsOf(scene.byId.get(one.object) ?? props.parts[0]!).find((channel) => channel.name === one.channel);
const nameOf = (one: Overrule): string => {
  const spec = specOf(one);
  const what = one.channel === WORDS ? "words" : spec?.row === "Fill" ? "fill" : (spec?.label ?? one.channel);
  return `${scene.byId.get(one.object)?.name ?? one.object}: ${what}`;
};

/** What a copy can have of its own, the colours and words first. */
const places = usePartPlaces(() => props.parts, ["fill"]);

/** A new value of its own begins as what the part has now. */
function add(event: Event): void {
  const place = places.value[Number((event.target as HTMLSelectElement).value)];
  (event.target as HTMLSelectElement).value = "";
  const part = scene.byId.get(place?.object ?? "");
  if (!place || !part) return;
  const rows = scene.motion?.objects.get(place.object)?.channels[place.channel];
  const spec = vocabulary.channelsOf(part).find((channel) => channel.name === place.channel);
  const value =
    place.channel === WORDS
      ? (textOf(part)?.text ?? "")
      : spec?.unit === "colour"
        ? hexOf(rows ? valuesAt(rows, playback.frame) : [0, 0, 0, 1])
        : rows
          ? writtenAt(rows, playback.frame)
          : Number(spec?.default ?? 0);
  const copy = Math.min(selection.copy, props.count - 1);
  const others = props.overrules.filter(
    (one) => one.copy !== copy || one.object !== place.object || one.channel !== place.channel,
  );
  emit("change", [...others, { copy, object: place.object, channel: place.channel, value }]);
}
const change = (at: number, value: number | string): void =>
  emit(
    "change",
    props.overrules.map((one, n) => (n === at ? { ...one, value } : one)),
  );
const drop = (at: number): void =>
  emit(
    "change",
    props.overrules.filter((_, n) => n !== at),
  );
</script>

<template>
  <details class="alone" :open="overrules.length > 0">
    <summary title="A click on a copy of the picked parade chooses it">One copy alone</summary>
    <div class="line">
      copy
      <NumberField
        label="Copy"
        :value="Math.min(selection.copy, Math.max(0, count - 1)) + 1"
        :low="1"
        :high="Math.max(1, count)"
        :digits="0"
        hint="Which copy; a click on it in the picture chooses it too"
        @change="selection.copy = Math.round($event) - 1"
      />
      <select aria-label="Values of this copy" @change="add">
        <option value="">add an own value…</option>
        <option v-for="(place, n) in places" :key="n" :value="n">{{ place.says }}</option>
      </select>
    </div>
    <div v-for="(one, n) in overrules" :key="n" class="line" role="group" :aria-label="`Copy ${one.copy + 1} alone`">
      <span class="what" :title="nameOf(one)">{{ one.copy + 1 }} · {{ nameOf(one) }}</span>
      <ColourField
        v-if="specOf(one)?.unit === 'colour'"
        class="colour"
        :label="`Copy ${one.copy + 1}, ${nameOf(one)}`"
        :rgba="rgbaOf(String(one.value))"
        @change="change(n, $event)"
      />
      <input
        v-else-if="one.channel === WORDS"
        :value="one.value"
        :aria-label="`Copy ${one.copy + 1}, ${nameOf(one)}`"
        @change="change(n, ($event.target as HTMLInputElement).value)"
      />
      <NumberField
        v-else
        :label="`Copy ${one.copy + 1}, ${nameOf(one)}`"
        :value="Number(one.value)"
        :shown="specOf(one)?.shown ?? 1"
        :step="specOf(one)?.step ?? 1"
        @change="change(n, $event)"
      />
      <button
        class="quiet"
        :aria-label="`Copy ${one.copy + 1} like the others`"
        title="Use the shared value again"
        @click="drop(n)"
      >
        ×
      </button>
    </div>
  </details>
</template>

<style scoped>
.alone {
  font-size: 12px;
  margin-top: 6px;
}
summary {
  color: var(--ink-2);
  cursor: pointer;
}
.line {
  display: flex;
  align-items: center;
  gap: 6px;
  margin-top: 4px;
}
.line :deep(.field) {
  width: 62px;
  flex: none;
}
.line .colour {
  width: 118px;
  flex: none;
}
.what {
  flex: 1;
  min-width: 0;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
select,
input {
  min-width: 0;
  flex: 1;
  border: 1px solid var(--line);
  border-radius: var(--radius-s);
  background: var(--paper);
  color: var(--ink);
  font: inherit;
  padding: 3px 4px;
}
</style>
