<script setup lang="ts">
/** One line of the values panel: its channels' fields, and the leaf that keys them together. */
import { asRead, hasField, holdsNumbers, quoted } from "@/api/channels";
import { computed } from "vue";
import { writtenAt, valuesAt } from "@/api/motion";
import type { ChannelWords, SceneObject } from "@/api/types";
import LeafMark from "@/components/common/LeafMark.vue";
import NumberField from "@/components/common/NumberField.vue";
import ColourField from "@/components/values/ColourField.vue";
import { useChanging } from "@/composables/useChanging";
import { hasPoints } from "@/composables/outline/useOutlinePoints";
import { useText } from "@/composables/useText";
import { useRules } from "@/composables/rules/useRules";
import { useLinking } from "@/stores/linking";
import { usePlayback } from "@/stores/playback";
import { useScene } from "@/stores/scene";
import { useSelection } from "@/stores/selection";
import { namesOf, type Row } from "@/stores/vocabulary";

const props = defineProps<{ thing: SceneObject; row: Row }>();
const scene = useScene();
const selection = useSelection();
const playback = usePlayback();
const changing = useChanging();
const linking = useLinking();
const rules = useRules();

/** A path has no field of its own: x and y say where it leads. */
const fields = computed(() => props.row.channels.filter(hasField));
/** Whether it is the row of an outline, and whether that has points of its own, which alone can be keyed. */
const outlined = computed(() => props.row.channels.some((channel) => channel.unit === "outline"));
/** Whether it is the row of a look, whose rules alone have keys. */
const look = computed(() => props.row.channels.some((channel) => channel.unit === "look"));
const lookSaid = computed(() => {
  const on = rules.onChannel(props.thing, "look").filter((rule) => rule.on);
  return on.map((rule) => rules.wordsOf(rule)?.label.toLowerCase() ?? rule.kind).join(", ") || "as drawn";
});
/** Whether it is the row of the words of a text, which are written in a field of their own. */
const worded = computed(() => props.row.channels.some((channel) => channel.unit === "words"));
const text = useText();
const keyable = computed(() => !look.value && (!outlined.value || hasPoints(props.thing)));
/** What makes the outline: how many keys and rules. */
const outlineSaid = computed(() => {
  const [keys, count] = [props.thing.channels?.["outline"]?.keys.length ?? 0, bends.value];
  const said = [
    keys ? `${keys} ${keys === 1 ? "key" : "keys"}` : "",
    count ? `${count} ${count === 1 ? "rule" : "rules"}` : "",
  ].filter(Boolean);
  return said.join(" · ") || "as drawn";
});
const bends = computed(() => rules.onChannel(props.thing, "outline").filter((rule) => rule.on).length);
const names = computed(() => namesOf(props.row));
const leaf = computed<"here" | "elsewhere" | "none">(() => {
  const keys = names.value.map((name) => props.thing.channels?.[name]?.keys ?? []);
  if (keys.some((list) => list.some((key) => key.frame === playback.textFrame))) return "here";
  return keys.some((list) => list.length) ? "elsewhere" : "none";
});
const lone = computed(
  () => names.value.every((name) => (props.thing.channels?.[name]?.keys.length ?? 0) <= 1) && leaf.value !== "none",
);
const leafHint = computed(() => {
  const what = props.row.name.toLowerCase();
  if (leaf.value === "here")
    return `${props.row.name} has a key at frame ${playback.textFrame}: click to take it away (K)`;
  return `Key the ${what} as it is at frame ${playback.textFrame} (K)`;
});

/** The channel that a thread pulled from this row represents. */
const drives = computed(() => {
  const numbers = fields.value.filter(holdsNumbers);
  const channel = numbers.find((one) => one.name === selection.channel?.name) ?? numbers[0];
  return channel ? { object: props.thing.id, channel: channel.name } : null;
});
const baked = (name: string) => scene.motion?.objects.get(props.thing.id)?.channels[name];
/** The baked float32 as the decimal it represents. */
const shownValue = (channel: ChannelWords): number => {
  const array = baked(channel.name);
  return array ? asRead(channel, writtenAt(array, playback.textFrame)) : 0;
};
const colour = (name: string) => {
  const rows = baked(name);
  return rows ? valuesAt(rows, playback.textFrame) : [0, 0, 0, 1];
};
function digits(channel: ChannelWords): number {
  // Beside a colour there is room for whole percents.
  if (channel.unit === "%" && props.row.channels.some((one) => one.unit === "colour")) return 0;
  if (channel.step < 0.1 && channel.shown === 1) return 2;
  return channel.step >= 1 && channel.unit === "" ? 0 : 1;
}
/** Two lengths side by side are distinguished by their names; a single one shows its unit. */
const unitOf = (channel: ChannelWords): string =>
  props.row.channels.filter((one) => one.unit === "px").length > 1 ? channel.label : channel.unit;
/** A number for display: counts change in whole numbers. */
const given = (channel: ChannelWords, value: number): number => (channel.whole ? Math.round(value) : value);
const scrub = (channel: ChannelWords, value: number | null): void =>
  value === null ? scene.letGo() : changing.show(props.thing, { [channel.name]: given(channel, value) }, false);
const change = (name: string, value: number | string): void => void changing.make(props.thing, { [name]: value });
</script>

<template>
  <div
    class="row value-row"
    :class="[row.family, { picked: selection.row?.name === row.name }]"
    @pointerdown="selection.pickRow(row.name)"
    @focusin="selection.pickRow(row.name)"
  >
    <span
      class="dot"
      :class="{ pulls: drives }"
      :title="
        drives
          ? `Drag onto another value, or onto something in the picture, to let ${row.name.toLowerCase()} drive it`
          : undefined
      "
      @pointerdown.stop="drives && linking.begin($event, drives)"
    />
    <span class="label" :title="row.channels.map((c) => `${c.label}: ${c.about}`).join('\n')">{{ row.name }}</span>
    <div class="fields">
      <template v-if="outlined">
        <span class="said">{{ outlineSaid }}</span>
        <button
          v-if="hasPoints(thing)"
          class="chip small"
          title="Edit the points in the picture (E)"
          @click="selection.tool = 'points'"
        >
          Points
        </button>
      </template>
      <span v-if="look" class="said">{{ lookSaid }}</span>
      <span v-if="worded" class="said words" :title="text.saidBy(thing)">{{ quoted(text.saidBy(thing)) }}</span>
      <template v-for="channel in fields" :key="channel.name">
        <ColourField
          v-if="channel.unit === 'colour'"
          :label="`${row.name} ${channel.label}`"
          :rgba="colour(channel.name)"
          @change="change(channel.name, $event)"
        />
        <NumberField
          v-else
          :data-link-object="thing.id"
          :data-link-channel="channel.name"
          :label="`${row.name} ${channel.label}`"
          :value="shownValue(channel)"
          :unit="unitOf(channel)"
          :shown="channel.shown"
          :step="channel.step"
          :low="channel.low"
          :high="channel.high"
          :digits="digits(channel)"
          :hint="`${channel.label}: ${channel.about}`"
          @scrub="scrub(channel, $event)"
          @change="change(channel.name, given(channel, $event))"
        />
      </template>
    </div>
    <button
      v-if="keyable"
      class="key"
      :title="lone ? `${leafHint}. One key makes no motion yet.` : leafHint"
      :aria-label="leafHint"
      :aria-pressed="leaf === 'here'"
      @click="changing.toggleKeys(thing, names)"
    >
      <LeafMark :state="leaf" :family="row.family" />
    </button>
  </div>
</template>

<style scoped>
.dot {
  width: 8px;
  height: 8px;
  border-radius: 50%;
  flex: none;
  background: currentColor;
}
.pulls {
  cursor: grab;
  outline: 5px solid transparent;
  touch-action: none;
}
.pulls:hover {
  box-shadow: 0 0 0 3px color-mix(in srgb, currentColor 25%, transparent);
}
.travel .dot {
  color: var(--travel);
}
.turn .dot {
  color: var(--turn);
}
.size .dot {
  color: var(--size-fill);
}
.look .dot {
  color: var(--look);
}
.label {
  width: 64px;
  flex: none;
}
</style>
