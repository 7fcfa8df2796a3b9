<script setup lang="ts">
/** The settings of a rule: numbers one can type, scrub and key right here, words to choose, and what it acts on. */
import { computed, ref } from "vue";
import type { ChannelWords, Rule, SceneObject, SettingWords } from "@/api/types";
import VineIcon from "@/components/common/VineIcon.vue";
import LeafMark from "@/components/common/LeafMark.vue";
import { takesRules } from "@/api/channels";
import FormulaField from "@/components/vine/FormulaField.vue";
import SettingWord from "@/components/vine/SettingWord.vue";
import NumberField from "@/components/common/NumberField.vue";
import ColourField from "@/components/values/ColourField.vue";
import { measureOf } from "@/composables/rules/useRuleSummary";
import { useRules } from "@/composables/rules/useRules";
import { usePlayback } from "@/stores/playback";
import { useScene } from "@/stores/scene";
import { useSelection } from "@/stores/selection";
import { useVocabulary } from "@/stores/vocabulary";

const props = defineProps<{ thing: SceneObject; rule: Rule; channel: ChannelWords }>();
const scene = useScene();
const playback = usePlayback();
const selection = useSelection();
const vocabulary = useVocabulary();
const rules = useRules();

const words = computed(() => rules.wordsOf(props.rule));
const isColour = (one: SettingWords): boolean => one.holds === "colour";
const isNumber = (one: SettingWords): boolean => !one.choices.length && !one.names && !isColour(one);
const isWord = (one: SettingWords): boolean => one.choices.length > 0 || (one.names !== "" && one.names !== "formula");
const isChannels = (one: SettingWords): boolean => one.unit === "as the channel";
const measure = (one: SettingWords) => measureOf(one, props.channel);
const digits = (one: SettingWords): number => {
  const { step, shown, unit } = measure(one);
  if (step === 1 && !isChannels(one) && unit !== "frames" && unit !== "°") return 0;
  return step * shown >= 1 ? 1 : 2;
};
/** The ends of a setting's slider: the usual ones, or as far as its value lies. */
function slider(one: SettingWords): { low: number; high: number } | null {
  const value = rules.numberOf(props.rule, one);
  if (!one.usual || value === null) return null;
  const factor = isChannels(one) ? props.channel.step : 1;
  return { low: Math.min(one.usual[0] * factor, value), high: Math.max(one.usual[1] * factor, value) };
}
/** What the service has against the last change. */
const wrong = ref("");
const leafOf = (one: SettingWords): "here" | "elsewhere" | "none" => {
  const keys = rules.keysOf(props.rule, one.name);
  return keys.some((key) => key.frame === playback.textFrame) ? "here" : keys.length ? "elsewhere" : "none";
};
const refused = async (answer: Promise<string | null | undefined>): Promise<void> =>
  void (wrong.value = (await answer) ?? "");
const set = (one: SettingWords, value: number | string | null): void =>
  void refused(scene.attempt(rules.settingEdits(props.rule, one.name, value)));
const scrub = (one: SettingWords, value: number | null): void =>
  value === null ? scene.letGo() : void scene.lookAt(rules.settingEdits(props.rule, one.name, value));
/** What a setting that was off begins with. */
function begin(one: SettingWords): number {
  const length = scene.head?.length ?? 24;
  if (one.name === "loop") return length;
  // As many whole swings as it makes now, or nearly.
  if (one.name === "cycles")
    return Math.max(1, Math.round(((rules.plainOf(props.rule, "frequency") ?? 1) * length) / playback.fps));
  return Math.max(one.low ?? 0, 1) * (isChannels(one) ? props.channel.step : 1);
}
/** The setting whose formula is being written. */
const linked = ref("");
async function link(one: SettingWords, formula: string | null): Promise<void> {
  linked.value = formula === null ? "" : one.name;
  await refused(
    scene.attempt([{ edit: "link-setting", object: props.thing.id, rule: props.rule.id, setting: one.name, formula }]),
  );
}
const numbers = computed(() =>
  vocabulary
    .channelsOf(props.thing)
    .filter(
      (one) =>
        takesRules(one) &&
        (one.unit === "colour") === (words.value?.of === "colour") &&
        (one.name === props.channel.name || one.row === props.channel.row),
    ),
);

async function toggleChannel(name: string, box: HTMLInputElement): Promise<void> {
  const now = props.rule.channels === "keyed" ? [props.channel.name] : [...props.rule.channels];
  const next = now.includes(name) ? now.filter((one) => one !== name) : [...now, name];
  await refused(rules.setChannels(props.rule, next));
  // What was refused is ticked again.
  if (wrong.value) box.checked = now.includes(name);
  else showOneOf(next);
}

async function toggleKeyed(): Promise<void> {
  const next = props.rule.channels === "keyed" ? [props.channel.name] : "keyed";
  await refused(rules.setChannels(props.rule, next));
  if (next === "keyed" && !wrong.value)
    showOneOf(numbers.value.map((one) => one.name).filter((one) => selection.keysOf(one).length > 0));
}

/** Show a channel the rule still acts on, if it left the shown one: its card would go, and these settings with it. */
function showOneOf(names: readonly string[]): void {
  const first = numbers.value.find((one) => names.includes(one.name));
  if (first && selection.row && !names.includes(props.channel.name)) selection.pickRow(selection.row.name, first.name);
}
</script>

<template>
  <div v-if="words" class="settings">
    <h3>{{ words.label }}</h3>
    <p>{{ words.about }}</p>
    <div class="grid">
      <template v-for="one in words.settings" :key="one.name">
        <span class="label" :title="one.about">{{ one.label }}</span>
        <SettingWord
          v-if="isWord(one)"
          class="wide"
          :thing="thing"
          :rule="rule"
          :setting="one"
          @change="set(one, $event)"
        />
        <FormulaField
          v-else-if="one.names === 'formula'"
          class="whole"
          :label="one.label"
          :thing="thing"
          :formula="String(rules.settingOf(rule, one.name) ?? one.default)"
          :wrong="wrong"
          @change="set(one, $event)"
        />
        <ColourField
          v-else-if="isColour(one)"
          class="wide"
          :label="one.label"
          :rgba="rules.colourOf(rule, one)"
          @change="set(one, $event)"
        />
        <button
          v-else-if="rules.numberOf(rule, one) === null"
          class="chip small off wide"
          :title="one.about"
          :aria-label="`Switch ${one.label} on`"
          @click="set(one, begin(one))"
        >
          off
        </button>
        <input
          v-else-if="slider(one) && !rules.formulaOf(rule, one.name)"
          type="range"
          :min="slider(one)!.low"
          :max="slider(one)!.high"
          :step="measure(one).step"
          :value="rules.numberOf(rule, one) ?? 0"
          :aria-label="`Slide ${one.label}`"
          :title="one.about"
          @input="scrub(one, Number(($event.target as HTMLInputElement).value))"
          @change="set(one, Number(($event.target as HTMLInputElement).value))"
        />
        <span v-else />
        <NumberField
          v-if="isNumber(one) && rules.numberOf(rule, one) !== null"
          :data-link-object="thing.id"
          :data-link-channel="`${rule.id}:${one.name}`"
          :disabled="Boolean(rules.formulaOf(rule, one.name))"
          :label="one.label"
          :value="rules.numberOf(rule, one) ?? 0"
          :unit="measure(one).unit"
          :shown="measure(one).shown"
          :step="measure(one).step"
          as-typed
          :digits="digits(one)"
          :low="one.low"
          :high="one.high"
          :hint="`${one.about} Drag sideways to scrub.`"
          @scrub="scrub(one, $event)"
          @change="set(one, $event)"
        />
        <span v-if="one.names !== 'formula'" class="end">
          <button
            v-if="isColour(one) || (isNumber(one) && rules.numberOf(rule, one) !== null)"
            class="leaf"
            :title="`Key ${one.label} at frame ${playback.textFrame}, or take its key away`"
            :aria-label="`Key ${one.label} at frame ${playback.textFrame}`"
            :aria-pressed="leafOf(one) === 'here'"
            @click="rules.toggleKey(rule, one)"
          >
            <LeafMark :state="leafOf(one)" family="turn" />
          </button>
          <button
            v-if="isNumber(one) && rules.numberOf(rule, one) !== null"
            class="leaf"
            :class="{ linked: rules.formulaOf(rule, one.name) }"
            :title="
              rules.formulaOf(rule, one.name)
                ? `${one.label} comes from a formula: click to take it away`
                : `Let a formula make ${one.label}; or drop a dial on the number`
            "
            :aria-label="rules.formulaOf(rule, one.name) ? `Unlink ${one.label}` : `Link ${one.label}`"
            @click="rules.formulaOf(rule, one.name) ? link(one, null) : (linked = one.name)"
          >
            <VineIcon name="link" />
          </button>
          <button
            v-if="one.default === null && rules.numberOf(rule, one) !== null"
            class="leaf"
            :title="`Switch ${one.label} off`"
            :aria-label="`Switch ${one.label} off`"
            @click="set(one, null)"
          >
            ×
          </button>
        </span>
        <FormulaField
          v-if="isNumber(one) && (rules.formulaOf(rule, one.name) || linked === one.name)"
          class="whole"
          :label="`Formula of ${one.label}`"
          :thing="thing"
          :formula="rules.formulaOf(rule, one.name) ?? ''"
          :wrong="linked === one.name ? wrong : ''"
          @change="link(one, $event || null)"
        />
      </template>
      <template v-if="words.modes.length">
        <span class="label" title="How this card combines with the one before it">mode</span>
        <select
          class="wide"
          aria-label="mode"
          :value="rule.mode"
          @change="rules.setMode(rule, ($event.target as HTMLSelectElement).value as Rule['mode'])"
        >
          <option v-for="mode in words.modes" :key="mode">{{ mode }}</option>
        </select>
        <span />
      </template>
    </div>
    <p v-if="wrong && !linked && !words.settings.some((one) => one.names === 'formula')" class="wrong" role="alert">
      {{ wrong }}
    </p>
    <div
      v-if="!words.joints && words.of !== 'outline' && words.of !== 'look'"
      class="acts"
      role="group"
      aria-label="Acts on"
    >
      <span>acts on</span>
      <label v-for="one in numbers" :key="one.name"
        ><input
          type="checkbox"
          :checked="rule.channels !== 'keyed' && rule.channels.includes(one.name)"
          @change="toggleChannel(one.name, $event.target as HTMLInputElement)"
        />
        {{ one.label }}</label
      >
      <label title="Every channel of the object that has keys"
        ><input type="checkbox" :checked="rule.channels === 'keyed'" @change="toggleKeyed" /> all keyed</label
      >
    </div>
  </div>
</template>

<style scoped>
h3 {
  font-size: 13px;
}
p {
  margin: 2px 0 8px;
  font-size: 12px;
  color: var(--ink-2);
}
.wrong {
  margin: 8px 0 0;
  color: var(--playhead-ink, #a32145);
  font-weight: 600;
}
.wide {
  grid-column: span 2;
}
.whole {
  grid-column: 1 / -1;
}
input[type="range"] {
  width: 100%;
  min-width: 0;
  height: 20px;
  margin: 0;
  accent-color: var(--travel);
  cursor: pointer;
}
.linked {
  color: var(--look);
  background: var(--look-pale);
}
.leaf .icon {
  width: 15px;
  height: 15px;
}
.grid {
  display: grid;
  grid-template-columns: 84px minmax(0, 1fr) 100px 74px;
  gap: 5px 8px;
  align-items: center;
}
.label {
  font-size: 12.5px;
}
.end {
  display: flex;
}
.leaf {
  border: 0;
  background: none;
  width: 24px;
  height: 24px;
  display: grid;
  place-items: center;
  border-radius: 50%;
  cursor: pointer;
  padding: 0;
  color: var(--ink-2);
}
.leaf:hover {
  background: var(--paper-3);
}
.off {
  justify-self: start;
  color: var(--ink-2);
}
select {
  min-width: 0;
}
.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 12px;
  margin-top: 10px;
  font-size: 12.5px;
}
.acts label {
  display: flex;
  gap: 5px;
  align-items: center;
  cursor: pointer;
}
</style>
