<script setup lang="ts">
/** The settings of a rule: numbers one can type, scrub and key right here, words to choose, and what it acts on. */
import { computed } from "vue";
import type { ChannelWords, Rule, SceneObject, SettingWords } from "@/api/types";
import LeafMark from "@/components/common/LeafMark.vue";
import NumberField from "@/components/common/NumberField.vue";
import { useRules } from "@/composables/useRules";
import { usePlayback } from "@/stores/playback";
import { useScene } from "@/stores/scene";
import { useVocabulary } from "@/stores/vocabulary";

const props = defineProps<{ thing: SceneObject; rule: Rule; channel: ChannelWords }>();
const scene = useScene();
const playback = usePlayback();
const vocabulary = useVocabulary();
const rules = useRules();

const words = computed(() => rules.wordsOf(props.rule));
const isChannels = (one: SettingWords): boolean => one.unit === "as the channel";
const shown = (one: SettingWords): number => (isChannels(one) ? props.channel.shown : 1);
const unit = (one: SettingWords): string => (isChannels(one) ? props.channel.unit : one.unit);
const step = (one: SettingWords): number => {
  if (isChannels(one)) return props.channel.step;
  return one.unit === "frames" || one.unit === "°" || one.name === "octaves" || one.name === "seed" ? 1 : 0.05;
};
const digits = (one: SettingWords): number => (step(one) * shown(one) >= 1 ? 1 : 2);
const leafOf = (one: SettingWords): "here" | "elsewhere" | "none" => {
  const keys = rules.keysOf(props.rule, one.name);
  return keys.some((key) => key.frame === playback.frame) ? "here" : keys.length ? "elsewhere" : "none";
};
const set = (one: SettingWords, value: number | string | null): void => void scene.edit(rules.settingEdits(props.rule, one.name, value));
const scrub = (one: SettingWords, value: number | null): void => (value === null ? scene.letGo() : void scene.lookAt(rules.settingEdits(props.rule, one.name, value)));
/** What a setting that was off begins with. */
const begin = (one: SettingWords): number => (one.name === "loop" ? (scene.head?.length ?? 24) : Math.max(one.low ?? 0, 1) * (isChannels(one) ? props.channel.step : 1));
const numbers = computed(() => vocabulary.channelsOf(props.thing).filter((one) => one.unit !== "point" && one.unit !== "colour" && (one.name === props.channel.name || one.row === props.channel.row)));

function toggleChannel(name: string): void {
  const now = props.rule.channels === "keyed" ? [props.channel.name] : [...props.rule.channels];
  const next = now.includes(name) ? now.filter((one) => one !== name) : [...now, name];
  if (next.length) void rules.setChannels(props.rule, next);
}
</script>

<template>
  <div v-if="words" class="settings">
    <h3>{{ words.label }}</h3>
    <p>{{ words.about }}</p>
    <div class="grid">
      <template v-for="one in words.settings" :key="one.name">
        <span class="label" :title="one.about">{{ one.label }}</span>
        <select v-if="one.choices.length" :aria-label="one.label" :value="rules.settingOf(rule, one.name) ?? one.default" @change="set(one, ($event.target as HTMLSelectElement).value)">
          <option v-for="choice in one.choices" :key="choice">{{ choice }}</option>
        </select>
        <button v-else-if="rules.numberOf(rule, one) === null" class="chip small off" :title="one.about" @click="set(one, begin(one))">off</button>
        <NumberField
          v-else
          :label="one.label"
          :value="rules.numberOf(rule, one) ?? 0"
          :unit="unit(one)"
          :shown="shown(one)"
          :step="step(one)"
          :digits="digits(one)"
          :low="one.low"
          :high="one.high"
          :hint="`${one.about} Drag sideways to scrub.`"
          @scrub="scrub(one, $event)"
          @change="set(one, $event)"
        />
        <span class="end">
          <button v-if="!one.choices.length && rules.numberOf(rule, one) !== null" class="leaf" :title="`Key ${one.label} at frame ${playback.frame}, or take its key away`" :aria-label="`Key ${one.label} at frame ${playback.frame}`" :aria-pressed="leafOf(one) === 'here'" @click="rules.toggleKey(rule, one)"><LeafMark :state="leafOf(one)" family="turn" /></button>
          <button v-if="one.default === null && rules.numberOf(rule, one) !== null" class="leaf" :title="`Switch ${one.label} off`" :aria-label="`Switch ${one.label} off`" @click="set(one, null)">×</button>
        </span>
      </template>
      <template v-if="words.modes.length">
        <span class="label" title="How it is put together with what the card before made">mode</span>
        <select aria-label="mode" :value="rule.mode" @change="rules.setMode(rule, ($event.target as HTMLSelectElement).value as Rule['mode'])">
          <option v-for="mode in words.modes" :key="mode">{{ mode }}</option>
        </select>
        <span />
      </template>
    </div>
    <div class="acts" role="group" aria-label="Acts on">
      <span>acts on</span>
      <label v-for="one in numbers" :key="one.name"><input type="checkbox" :checked="rule.channels !== 'keyed' && rule.channels.includes(one.name)" @change="toggleChannel(one.name)" /> {{ one.label }}</label>
      <label title="Every channel of the object that has keys"><input type="checkbox" :checked="rule.channels === 'keyed'" @change="rules.setChannels(rule, rule.channels === 'keyed' ? [channel.name] : 'keyed')" /> all keyed</label>
    </div>
  </div>
</template>

<style scoped>
h3 { font-size: 13px; }
p { margin: 2px 0 8px; font-size: 12px; color: var(--ink-2); }
.grid { display: grid; grid-template-columns: 90px minmax(0, 1fr) 50px; gap: 5px 8px; align-items: center; }
.label { font-size: 12.5px; }
.end { display: flex; }
.leaf { border: 0; background: none; width: 24px; height: 24px; display: grid; place-items: center; border-radius: 50%; cursor: pointer; padding: 0; color: var(--ink-2); }
.leaf:hover { background: var(--paper-3); }
.off { justify-self: start; color: var(--ink-2); }
select { font: inherit; border: 1px solid var(--line); border-radius: var(--radius-s); background: var(--paper); padding: 2px 4px; min-width: 0; }
.acts { display: flex; flex-wrap: wrap; gap: 4px 12px; margin-top: 10px; font-size: 12.5px; }
.acts label { display: flex; gap: 5px; align-items: center; cursor: pointer; }
</style>
