<script setup lang="ts">
/** How one channel is made: keys, ends, each rule, result. */
import { computed, ref, watch } from "vue";
import { channelOf, isSetting, quoted, takesRules } from "@/api/channels";
import { api } from "@/api/client";
import type { Rule } from "@/api/types";
import EndsChooser from "@/components/vine/EndsChooser.vue";
import FeelChooser from "@/components/vine/FeelChooser.vue";
import RuleControls from "@/components/vine/RuleControls.vue";
import RuleMenu from "@/components/vine/RuleMenu.vue";
import LookPicture from "@/components/vine/LookPicture.vue";
import VineCard from "@/components/vine/VineCard.vue";
import { hasPoints } from "@/composables/outline/useOutlinePoints";
import { useNewest } from "@/composables/useNewest";
import { useText } from "@/composables/useText";
import { useRules } from "@/composables/rules/useRules";
import { endWords } from "@/composables/sheet/useLaneMaking";
import { extent } from "@/geometry/curves";
import { boxAround } from "@/geometry/outline";
import { usePlayback } from "@/stores/playback";
import { useScene } from "@/stores/scene";
import { useSelection } from "@/stores/selection";
import { useVocabulary } from "@/stores/vocabulary";
import { isOrAre, readable, spaced, whose } from "@/geometry/frames";

interface Step {
  readonly kind: string;
  readonly label: string;
  readonly rule: string | null;
  readonly on: boolean;
  readonly values: readonly number[];
  /** What keeps a rule from doing its work. */
  readonly remark: string | null;
  /** Of outlines, the outline so far, as SVG path data. */
  readonly outline?: string | null;
}

const scene = useScene();
const selection = useSelection();
const playback = usePlayback();
const vocabulary = useVocabulary();
const steps = ref<readonly Step[]>([]);

const subject = computed(() =>
  selection.thing && selection.channel ? { thing: selection.thing, channel: selection.channel } : null,
);
const source = computed(() => (subject.value ? channelOf(subject.value.thing, subject.value.channel.name) : undefined));
/** The channels one can look at: a path only where there is one. */
const shown = computed(() =>
  (selection.row?.channels ?? []).filter(
    (channel) => channel.unit !== "point" || selection.keysOf(channel.name).length > 0,
  ),
);
const keys = computed(() => source.value?.keys ?? []);
const what = computed(() => {
  const channel = subject.value?.channel;
  if (!channel || !selection.row) return "";
  const row = selection.row.name.toLowerCase();
  return selection.row.channels.length > 1 && channel.label !== "path" && channel.label !== row
    ? `${row} ${channel.label}`
    : row;
});

/** The frame the playhead rests at, or rested at before it began to play. */
const resting = ref(playback.textFrame);
watch(
  () => playback.textFrame,
  (frame) => playback.playing || (resting.value = frame),
);
const beginAsking = useNewest();
watch(
  () =>
    [
      scene.id,
      scene.revision,
      subject.value?.thing.id,
      subject.value?.channel.name,
      // Outlines are asked for as they are at the playhead, whenever it rests.
      subject.value?.channel.unit === "outline" ? resting.value : 0,
    ] as const,
  async ([id, , object, channel, frame]) => {
    const isNewest = beginAsking();
    if (!id || !object || !channel) {
      steps.value = [];
      return;
    }
    const vine = await api.vine(id, object, channel, frame).catch(() => null);
    if (vine && isNewest()) steps.value = vine.steps;
  },
  { immediate: true },
);

const rules = useRules();
const text = useText();
const ruleOf = (step: Step): Rule | undefined => subject.value?.thing.rules.find((rule) => rule.id === step.rule);
/** The rule whose card is being dragged, and the one it would take the place of. */
const [dragged, over] = [ref<string | null>(null), ref<string | null>(null)];

async function dropOn(step: Step): Promise<void> {
  const [thing, moved, target] = [subject.value?.thing, dragged.value, ruleOf(step)];
  [dragged.value, over.value] = [null, null];
  if (thing && moved && target && moved !== target.id)
    await scene.edit([{ edit: "move-rule", object: thing.id, rule: moved, index: thing.rules.indexOf(target) }]);
}
/** The rules whose work a card shows: those up to its own, or all of them. */
const rulesUpto = (step: Step): ReadonlySet<string> =>
  new Set(steps.value.slice(0, steps.value.indexOf(step) + 1).flatMap((one) => one.rule ?? []));
const hasRules = computed(() => steps.value.some((step) => step.rule !== null));

const scale = computed(() => extent(steps.value.map((step) => step.values)));
/** The box around the outlines of all cards, so that they are drawn alike. */
const outlines = computed(() => boxAround(steps.value.flatMap((step) => step.outline ?? [])));
const unit = computed(() => subject.value?.channel.unit ?? "");
/** Whether its cards show pictures and not curves. */
const pictured = computed(() => unit.value === "outline" || unit.value === "look");

function note(step: Step): string {
  if (step.kind === "shape" || step.kind === "drawn") return "as it is drawn";
  if (step.kind === "parts") return "all that hangs on it";
  if (step.kind === "keys") {
    if (keys.value.length === 0) return "no keys: always the same";
    if (keys.value.length === 1) return "1 key: moves nothing yet";
    if (unit.value === "words") return `${keys.value.length} keys`;
    const eases = [...new Set(keys.value.slice(0, -1).map((key) => vocabulary.easeLabel(key.ease)))];
    return `${keys.value.length} keys · ${eases.length === 1 ? eases[0] : `${eases.length} feels`}`;
  }
  if (step.kind === "ends") {
    const { before, after } = source.value ?? {};
    const words = [
      before && before.mode !== "hold" ? `before: ${endWords(before)}` : "",
      after && after.mode !== "hold" ? `after: ${endWords(after)}` : "",
    ].filter(Boolean);
    return words.join(" · ") || "holds before and after";
  }
  if (step.kind === "result" && pictured.value) return `at frame ${playback.textFrame}`;
  if (step.kind === "result") return `${at(step)} at frame ${playback.textFrame}`;
  if (step.kind === "formula") return `${at(step)} now · ${source.value?.formula ?? ""}`;
  const rule = ruleOf(step);
  if (!step.on) return "switched off";
  if (step.remark) return step.remark;
  if (rule && subject.value && pictured.value) return rules.summaryOf(rule, subject.value.channel);
  return rule && subject.value
    ? `${at(step)} now · ${rules.summaryOf(rule, subject.value.channel)}`
    : `${at(step)} now`;
}

function at(step: Step): string {
  const channel = subject.value?.channel;
  const { values } = step;
  const value = values.at(Math.min(playback.textFrame, values.length - 1)) ?? 0;
  if (unit.value === "words") return quoted(text.saidBy(subject.value!.thing));
  if (unit.value === "point") return `${readable(value)} px along`;
  if (unit.value === "colour") return `lightness ${readable(value * 100)} %`;
  const number = readable(value * (channel?.shown ?? 1), channel && channel.step < 1 ? 2 : 1);
  return `${number}${spaced(unit.value)}`;
}
</script>

<template>
  <section class="vine" aria-label="Vine">
    <header>
      <template v-if="subject">
        <h2>
          How {{ whose(subject.thing.name) }} {{ what }}
          {{ isSetting(subject.channel.name) ? "is" : isOrAre(what) }} made
        </h2>
        <div v-if="selection.row && shown.length > 1" class="which" role="radiogroup" aria-label="Channel">
          <button
            v-for="channel in shown"
            :key="channel.name"
            role="radio"
            :aria-checked="channel.name === subject.channel.name"
            :class="{ on: channel.name === subject.channel.name }"
            @click="selection.pickRow(selection.row.name, channel.name)"
          >
            {{ channel.label }}
          </button>
        </div>
        <span class="hint"
          >read left to right: each card shows the
          {{ unit === "outline" ? "outline" : unit === "look" ? "picture" : "curve" }} so far{{
            unit === "look" ? "" : ", the pale line is the card before"
          }}</span
        >
      </template>
      <h2 v-else>The vine shows how a value is computed, card by card</h2>
    </header>
    <div v-if="subject" class="cards">
      <svg class="liana" preserveAspectRatio="none" viewBox="0 0 100 20" aria-hidden="true">
        <path d="M0 9C12 3 20 16 34 10S56 4 68 11 88 14 100 8" />
      </svg>
      <VineCard
        v-for="(step, i) in steps"
        :key="`${step.kind} ${step.rule ?? i}`"
        :style="{ order: step.kind === 'result' ? 2 : 0 }"
        :class="{ target: step.rule !== null && over === step.rule && dragged !== step.rule }"
        :draggable="step.rule !== null"
        :title="step.rule ? 'Drag the card to another place in the vine' : undefined"
        :step="step"
        :before="steps[i - 1]?.values ?? null"
        :outline-before="steps[i - 1]?.outline ?? null"
        :outlines="outlines"
        :family="subject.channel.family"
        :scale="scale"
        :note="note(step)"
        :frame="playback.frame"
        @dragstart="dragged = step.rule"
        @dragend="((dragged = null), (over = null))"
        @dragover="step.rule && dragged && ($event.preventDefault(), (over = step.rule))"
        @drop.prevent="dropOn(step)"
      >
        <template v-if="unit === 'look'" #picture>
          <LookPicture :id="subject.thing.id" :upto="rulesUpto(step)" />
        </template>
        <FeelChooser
          v-if="step.kind === 'keys' && selection.row && unit !== 'words'"
          :thing="subject.thing"
          :row="selection.row"
        />
        <EndsChooser v-else-if="step.kind === 'ends' && selection.row" :thing="subject.thing" :row="selection.row" />
        <RuleControls
          v-else-if="ruleOf(step)"
          :thing="subject.thing"
          :rule="ruleOf(step)!"
          :channel="subject.channel"
        />
        <button
          v-else-if="
            step.kind === 'result' && hasRules && unit !== 'look' && (unit !== 'outline' || hasPoints(subject.thing))
          "
          class="freeze"
          title="Turn what the rules make into keys, few of them; undo brings the rules back"
          @click="rules.freeze(subject.channel.name, unit === 'colour' ? 0.01 : subject.channel.step / 2)"
        >
          Freeze
        </button>
      </VineCard>
      <RuleMenu
        v-if="takesRules({ unit }) && subject.thing.kind !== 'dial' && !isSetting(subject.channel.name)"
        :style="{ order: 1 }"
      />
    </div>
    <p v-else class="empty">Select an object to see its keys, its ends, its rules and the result as curves.</p>
  </section>
</template>

<style scoped>
.vine {
  border-top: 1px solid var(--line);
  background: var(--paper-2);
  display: flex;
  flex-direction: column;
  min-height: 0;
  overflow: hidden;
  container-type: size;
}
header {
  display: flex;
  align-items: center;
  gap: 10px;
  padding: 7px 14px 5px;
  white-space: nowrap;
}
h2 {
  font-size: 13px;
}
.hint {
  color: var(--ink-2);
  font-size: 12px;
  overflow: hidden;
  text-overflow: ellipsis;
}
.which {
  display: flex;
  background: var(--paper-3);
  border-radius: 99px;
  padding: 2px;
}
.which button {
  border: 0;
  background: none;
  border-radius: 99px;
  padding: 1px 10px;
  cursor: pointer;
  font-size: 12px;
}
.which .on {
  background: var(--paper);
  font-weight: 600;
}
.cards {
  /* How high the pictures of the cards are: lower where the vine is. */
  --chart: clamp(30px, calc(100cqh - 105px), 62px);
  position: relative;
  display: flex;
  gap: 18px;
  padding: 3px 14px 12px;
  overflow-x: auto;
  flex: 1;
  align-items: flex-start;
}
.liana {
  position: absolute;
  left: 0;
  top: 44px;
  width: 100%;
  height: 20px;
  pointer-events: none;
}
.liana path {
  fill: none;
  stroke: #6fa77f;
  stroke-width: 2.5;
  vector-effect: non-scaling-stroke;
}
.target {
  outline: 2px dashed var(--travel);
  outline-offset: 3px;
}
.freeze {
  border: 1px solid #56605a;
  border-radius: 99px;
  background: none;
  color: inherit;
  padding: 1px 9px;
  font-size: 12px;
  cursor: pointer;
}
.freeze:hover {
  background: #33403a;
}
.empty {
  color: var(--ink-2);
  margin: 4px 14px;
}
</style>
