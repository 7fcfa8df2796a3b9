<script setup lang="ts">
/**
 * Motion is put on beats: leaves of a value, a flight between them, or the steps of a walk; seen in the picture before
 * it is taken.
 */
import { useDebounceFn } from "@vueuse/core";
import { ElDialog } from "element-plus";
import { computed, onBeforeUnmount, reactive, ref, watch } from "vue";
import { hasField, keysOf, titleOf } from "@/api/channels";
import { gaitOf } from "@/api/figures";
import { isFigure } from "@/api/kinds";
import { numberAt } from "@/api/motion";
import type { Edit } from "@/api/types";
import NumberField from "@/components/common/NumberField.vue";
import { usePlayback } from "@/stores/playback";
import { useScene } from "@/stores/scene";
import { useSelection } from "@/stores/selection";
import { useSounds } from "@/stores/sounds";
import { useVocabulary } from "@/stores/vocabulary";

type Way = "hit" | "turn" | "bounce" | "poses" | "step";
/** Small pictures of what each does over four beats, 96 × 30. */
const WAYS: readonly { name: Way; label: string; about: string; line: string }[] = [
  {
    name: "hit",
    label: "Hit",
    about: "On every beat at once there, then back to rest",
    line: "M2 26H10L14 5Q19 24 26 26H33L37 5Q42 24 49 26H56L60 5Q65 24 72 26H79L83 5Q88 24 95 26",
  },
  {
    name: "turn",
    label: "To and fro",
    about: "There on one beat, back on the next, gently",
    line: "M12 5C24 5 24 26 36 26S48 5 60 5 72 26 84 26",
  },
  {
    name: "bounce",
    label: "Bounce",
    about: "On the ground on every beat, flying in between as what is thrown does",
    line: "M12 26Q24 -14 36 26Q48 -14 60 26Q72 -14 84 26",
  },
  {
    name: "poses",
    label: "Its leaves",
    about: "The leaves it has, one on each beat, repeatedly",
    line: "M12 20H36V8H60V14H84V20H95",
  },
  {
    name: "step",
    label: "Steps",
    about: "A foot is set down on every beat",
    line: "M4 26Q14 6 24 26M28 26Q38 6 48 26M52 26Q62 6 72 26M76 26Q86 6 95 26",
  },
];
const QUIET = 150;
const scene = useScene();
const selection = useSelection();
const playback = usePlayback();
const sounds = useSounds();
const vocabulary = useVocabulary();

const open = computed({ get: () => sounds.laying !== null, set: (now) => !now && (sounds.laying = null) });
const things = computed(() => [...scene.objects, ...scene.dials]);
const object = ref(selection.objectId ?? things.value[0]?.id ?? "");
const thing = computed(() => scene.byId.get(object.value));
const by = ref(sounds.laying ?? "markers");
const given = reactive({ rest: 0, struck: 1, rise: 2, fall: 8, every: 1, skip: 0 });
const walks = computed(() => isFigure(thing.value) && gaitOf(thing.value)?.on === true);
const way = ref<Way>(walks.value ? "step" : "hit");
const channels = computed(() =>
  thing.value
    ? vocabulary
        .channelsOf(thing.value)
        .map((one) => ({ ...one, says: titleOf(one) }))
        .filter(hasField)
    : [],
);
const channel = ref("");
const words = computed(() => channels.value.find((one) => one.name === channel.value));
const shown = computed(() => words.value?.shown ?? 1);
const keyed = computed(() => (thing.value ? keysOf(thing.value, channel.value).length : 0));
const timer = computed(() => sounds.timers.find((one) => one.by === by.value) ?? null);
const used = computed(() =>
  (timer.value?.frames ?? []).filter((_, n) => n >= given.skip && (n - given.skip) % given.every === 0),
);

// What the value is now is where it rests; it is struck by as much as is usual for its kind.
function aim(): void {
  const names = channels.value.map((one) => one.name);
  const chosen = selection.objectId === object.value ? selection.channel?.name : undefined;
  if (chosen && names.includes(chosen)) channel.value = chosen;
  else if (!names.includes(channel.value)) channel.value = names[0] ?? "";
}
watch(object, aim, { immediate: true });
watch(
  channel,
  () => {
    const rows = scene.motion?.objects.get(object.value)?.channels[channel.value];
    const now = rows?.width === 1 ? numberAt(rows, playback.frame) : Number(words.value?.default) || 0;
    const unit = words.value?.unit ?? "";
    const by = unit === "px" ? -120 : unit === "°" ? 20 : now > 0.6 ? -0.5 : 0.5;
    [given.rest, given.struck] = [Number(now.toFixed(4)), Number((now + by).toFixed(4))];
  },
  { immediate: true },
);
watch(walks, (now) => !now && way.value === "step" && (way.value = "hit"));
watch(
  () => sounds.timers,
  (all) => !all.some((one) => one.by === by.value) && all[0] && (by.value = all[0].by),
  { immediate: true },
);

const edit = computed<Edit | null>(() => {
  if (!timer.value || !thing.value) return null;
  if (way.value === "step")
    return walks.value ? { edit: "step-on-beats", id: object.value, by: by.value, every: given.every } : null;
  if (!channel.value) return null;
  return {
    edit: "keys-on-beats",
    object: object.value,
    channel: channel.value,
    by: by.value,
    way: way.value,
    ...given,
  };
});
const wrong = ref("");
const look = useDebounceFn(async () => {
  if (!open.value || !edit.value) return scene.letGo();
  wrong.value = "";
  await scene.lookAt([edit.value], null, (message) => (wrong.value = message));
}, QUIET);
watch(edit, () => void look(), { immediate: true, deep: true });
onBeforeUnmount(() => scene.letGo());

async function lay(): Promise<void> {
  if (!edit.value) return;
  wrong.value = (await scene.attempt([edit.value])) ?? "";
  if (wrong.value) return;
  if (way.value !== "step") {
    selection.pick(object.value);
    const row = vocabulary.rowsOf(thing.value!).find((one) => one.channels.some((it) => it.name === channel.value));
    if (row) selection.pickRow(row.name);
  }
  open.value = false;
}
</script>

<template>
  <ElDialog
    v-model="open"
    title="Motion on beats"
    width="470px"
    top="60px"
    :modal="false"
    draggable
    :lock-scroll="false"
    class="beats-dialog"
  >
    <p v-if="!sounds.timers.length" class="hint">No beats yet. Import a sound, set a beat, or add markers with S.</p>
    <template v-else>
      <div class="line">
        <select v-model="object" aria-label="What moves" :title="thing?.name">
          <option v-for="one in things" :key="one.id" :value="one.id">{{ one.name }}</option>
        </select>
        <select v-if="way !== 'step'" v-model="channel" aria-label="Value to link">
          <option v-for="one in channels" :key="one.name" :value="one.name">{{ one.says }}</option>
        </select>
        <span>on</span>
        <select v-model="by" aria-label="Which beats">
          <option v-for="one in sounds.timers" :key="one.by" :value="one.by">{{ one.label }}</option>
        </select>
      </div>
      <div class="ways" role="radiogroup" aria-label="How">
        <button
          v-for="one in WAYS"
          :key="one.name"
          role="radio"
          :aria-checked="way === one.name"
          :aria-label="one.label"
          :class="{ on: way === one.name }"
          :disabled="(one.name === 'step' && !walks) || (one.name === 'poses' && !keyed)"
          :title="one.name === 'step' && !walks ? 'Pick a figure with a gait for this' : one.about"
          @click="way = one.name"
        >
          <svg viewBox="0 0 97 30" aria-hidden="true"><path :d="one.line" /></svg>
          {{ one.label }}
        </button>
      </div>
      <div v-if="way === 'hit' || way === 'turn' || way === 'bounce'" class="grid">
        <span>{{ way === "bounce" ? "on the ground" : "at rest" }}</span>
        <NumberField
          label="At rest"
          :value="given.rest"
          :shown="shown"
          :step="words?.step ?? 1"
          :digits="2"
          @change="given.rest = $event"
        />
        <span>{{
          way === "bounce" ? "at the top of the longest flight" : way === "turn" ? "on the beat between" : "on the beat"
        }}</span>
        <NumberField
          label="On the beat"
          :value="given.struck"
          :shown="shown"
          :step="words?.step ?? 1"
          :digits="2"
          @change="given.struck = $event"
        />
        <template v-if="way === 'hit'">
          <span>frames there</span>
          <NumberField
            label="Frames there"
            :value="given.rise"
            :low="0"
            :high="100"
            :digits="0"
            @change="given.rise = Math.round($event)"
          />
          <span>frames back</span>
          <NumberField
            label="Frames back"
            :value="given.fall"
            :low="1"
            :high="200"
            :digits="0"
            @change="given.fall = Math.round($event)"
          />
        </template>
      </div>
      <div class="grid">
        <span>every n beats</span>
        <NumberField
          label="Every n beats"
          :value="given.every"
          :low="1"
          :high="64"
          :digits="0"
          @change="given.every = Math.round($event)"
        />
        <template v-if="way !== 'step'">
          <span>beats to skip first</span>
          <NumberField
            label="Beats left out first"
            :value="given.skip"
            :low="0"
            :high="64"
            :digits="0"
            @change="given.skip = Math.round($event)"
          />
        </template>
      </div>
      <p class="hint">
        {{ used.length === 1 ? "One beat" : `${used.length} beats` }} within the scene.
        <template v-if="way === 'step'">The path does not change; the strides are fitted to the beats.</template>
        <template v-else-if="way === 'poses'">Its {{ keyed }} leaves go round; others of this value go.</template>
        <template v-else>Keys between the first and the last beat are replaced.</template>
      </p>
      <p v-if="wrong" class="wrong" role="alert">{{ wrong }}</p>
    </template>
    <template #footer>
      <button class="plain" @click="open = false">Leave it</button>
      <button class="primary" :disabled="!edit || !used.length" @click="lay">Fit to the beats</button>
    </template>
  </ElDialog>
</template>

<style scoped>
:global(.beats-dialog) {
  /* Beside the picture, which shows what is about to be done. */
  margin-right: 12px;
}
.line,
.ways {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 6px;
  margin-bottom: 10px;
}
select {
  max-width: 150px;
  padding: 3px 4px;
}
.ways button {
  display: grid;
  gap: 2px;
  justify-items: center;
  width: 78px;
  padding: 5px 4px;
  border: 1px solid var(--line);
  border-radius: var(--radius);
  background: var(--paper);
  font: inherit;
  font-size: 12px;
  color: var(--ink);
  cursor: pointer;
}
.ways button:disabled {
  opacity: 0.45;
  cursor: default;
}
.ways .on {
  border-color: var(--travel);
  background: var(--travel-pale);
}
path {
  fill: none;
  stroke: var(--travel);
  stroke-width: 2;
  stroke-linejoin: round;
}
.grid {
  display: grid;
  grid-template-columns: 1fr 110px;
  gap: 5px 8px;
  align-items: center;
  margin-bottom: 8px;
  max-width: 380px;
}
.hint,
.grid span {
  margin: 0;
  color: var(--ink-2);
  font-size: 12.5px;
}
.wrong {
  margin: 6px 0 0;
  color: #a32145;
  font-weight: 600;
  font-size: 12.5px;
}
</style>
