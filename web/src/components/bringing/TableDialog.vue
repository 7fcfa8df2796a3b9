<script setup lang="ts">
/**
 * A table becomes keys: which column is time, which goes to which channel, and how exactly; seen in the picture before
 * it is taken.
 */
import { useDebounceFn } from "@vueuse/core";
import { ElDialog } from "element-plus";
import { computed, onBeforeUnmount, reactive, ref, shallowRef, watch } from "vue";
import { holdsNumbers, titleOf } from "@/api/channels";
import { api, ServiceError } from "@/api/client";
import type { LaidTrack } from "@/api/types";
import NumberField from "@/components/common/NumberField.vue";
import { useBringIn } from "@/composables/bringing/useBringIn";
import { layEdit, samplesOf, sparkline, type Target, type Unit } from "@/geometry/samples";
import { usePlayback } from "@/stores/playback";
import { useScene } from "@/stores/scene";
import { useSelection } from "@/stores/selection";
import { useVocabulary } from "@/stores/vocabulary";

/** How long settings must rest before they are looked at, ms; and the size of the small pictures of columns, px. */
const QUIET = 180;
const [WIDE, HIGH] = [220, 40];
const { table: waiting } = useBringIn();
const scene = useScene();
const selection = useSelection();
const playback = usePlayback();
const vocabulary = useVocabulary();

const words = waiting.value!.words;
const open = computed({ get: () => waiting.value !== null, set: (now) => !now && (waiting.value = null) });
/** Of a sound, the frame at which its file would begin; else the playhead. */
function beginAt(): number {
  const sound = waiting.value?.sound;
  return Math.round(sound ? sound.first - sound.begin * playback.fps : playback.frame);
}
const timing = reactive({ column: words.time, unit: words.unit as Unit, every: 1, first: beginAt() });
const things = computed(() => [...scene.objects, ...scene.dials]);
const usable = words.columns
  .map((one, at) => ({ ...one, at }))
  .filter((one) => one.kind === "number" || one.kind === "colour");
const targets = reactive<(Target | null)[]>(words.columns.map(() => null));
const thin = ref(false);
const tolerance = ref(1);
const laid = shallowRef<readonly LaidTrack[]>([]);
const problem = ref<string | null>(null);

function channelsOf(object: string, colour: boolean) {
  const thing = scene.byId.get(object);
  if (!thing) return [];
  return vocabulary
    .channelsOf(thing)
    .map((one) => ({ ...one, says: titleOf(one) }))
    .filter((one) => (colour ? one.unit === "colour" : holdsNumbers(one)));
}
function aim(at: number, changes: Partial<Target>): void {
  const before = targets[at] ?? { object: "", channel: "", scale: 1, offset: 0 };
  const next = { ...before, ...changes };
  const channels = channelsOf(next.object, words.columns[at]!.kind === "colour");
  if (!channels.some((one) => one.name === next.channel)) next.channel = channels[0]?.name ?? "";
  targets[at] = next.object ? next : null;
}
// The first column of numbers goes to what is picked: that is most likely what it was brought for.
const begin = usable.find((one) => one.at !== words.time && one.kind === "number");
if (begin && selection.objectId && scene.byId.has(selection.objectId)) {
  const rows = vocabulary.rowsOf(scene.byId.get(selection.objectId)!);
  const row = rows.find((one) => one.name === selection.rowName);
  aim(begin.at, { object: selection.objectId, channel: row?.channels[0]?.name ?? "rotation" });
}

const edit = computed(() => layEdit(words, targets, timing, playback.fps, thin.value ? tolerance.value : 0));
const count = computed(() => laid.value.reduce((sum, one) => sum + one.frames.length, 0));
const samples = computed(() => edit.value?.tracks.reduce((sum, one) => sum + one.times.length, 0) ?? 0);

/** The original column and the keys that represent it, in a small picture. */
const pictures = computed(() => {
  const tracks = edit.value?.tracks ?? [];
  return new Map(
    usable.map((column) => {
      const [times, cells] = samplesOf(words, column.at, timing.column);
      const numbers = cells.map(Number);
      const target = targets[column.at];
      const which = tracks.findIndex((one) => one.object === target?.object && one.channel === target?.channel);
      const keys = which < 0 ? undefined : laid.value[which];
      if (column.kind !== "number" || !numbers.length) return [column.at, { line: "", dots: [] }];
      const [low, high] = [Math.min(...numbers), Math.max(...numbers)];
      const [from, to] = [Math.min(...times), Math.max(...times)];
      const pace = edit.value?.pace ?? 1;
      const dots = (keys?.frames ?? []).map((frame, i) => ({
        x: to > from ? (((frame - timing.first) / pace - from) / (to - from)) * WIDE : WIDE / 2,
        y:
          high > low
            ? HIGH - (((Number(keys!.values[i]) - target!.offset) / (target!.scale || 1) - low) / (high - low)) * HIGH
            : HIGH / 2,
      }));
      return [column.at, { line: sparkline(times, numbers, WIDE, HIGH), dots: dots.length <= 400 ? dots : [] }];
    }),
  );
});

const look = useDebounceFn(async () => {
  if (!open.value || !scene.id) return;
  if (!edit.value) {
    laid.value = [];
    scene.letGo();
    return;
  }
  try {
    laid.value = await api.lookAtSamples(scene.id, edit.value);
    problem.value = null;
    if (open.value && edit.value) void scene.lookAt([edit.value]);
  } catch (error) {
    if (!(error instanceof ServiceError)) throw error;
    [laid.value, problem.value] = [[], error.message];
    scene.letGo();
  }
}, QUIET);
watch(edit, () => void look(), { immediate: true, deep: true });
onBeforeUnmount(scene.letGo);

async function lay(): Promise<void> {
  const made = edit.value;
  if (!made) return;
  waiting.value = null;
  await scene.edit([made]);
}
</script>

<template>
  <ElDialog
    v-model="open"
    :title="`${waiting?.sound ? 'Sound' : 'Table'}: ${waiting?.name}`"
    width="720"
    :top="`calc(100vh - ${usable.length > 3 ? 436 : 360}px)`"
    :modal="false"
    draggable
    :lock-scroll="false"
    class="table-dialog"
  >
    <p class="hint">
      <template v-if="waiting?.sound"
        >The loudness at each frame, 0 to 1, in all and in three bands, and the beats. Choose the channels to key. The
        keys do not follow the sound when it is moved later.</template
      ><template v-else
        >{{ words.rows }} rows. Choose where each column goes; the picture shows it before it is taken.</template
      >
      <template v-for="one in words.remarks" :key="one">{{ ` ${one}.` }}</template>
    </p>
    <fieldset>
      <legend>Time</legend>
      <select v-model="timing.column" class="choice" aria-label="Column of time">
        <option :value="null">one row after another</option>
        <option
          v-for="(one, at) in words.columns"
          v-show="one.kind === 'number' || one.kind === 'moment'"
          :key="at"
          :value="at"
        >
          {{ one.name }}
        </option>
      </select>
      <template v-if="timing.column !== null">
        in
        <select v-model="timing.unit" class="choice" aria-label="What time is counted in">
          <option value="frames">frames</option>
          <option value="seconds">seconds</option>
        </select>
      </template>
      <NumberField
        v-else
        label="Frames from row to row"
        unit="frames each"
        :value="timing.every"
        :low="0.01"
        :high="1000"
        :digits="2"
        @change="timing.every = $event"
      />
      from frame
      <NumberField
        label="First frame"
        :value="timing.first"
        :low="-100000"
        :high="100000"
        :digits="0"
        @change="timing.first = $event"
      />
    </fieldset>
    <ul class="columns">
      <li v-for="one in usable" v-show="one.at !== timing.column" :key="one.at" :class="{ off: !targets[one.at] }">
        <strong :title="one.name">{{ one.name }}</strong>
        <svg :viewBox="`-3 -3 ${WIDE + 6} ${HIGH + 6}`" :width="150" height="34" aria-hidden="true">
          <polyline :points="pictures.get(one.at)?.line" />
          <circle v-for="(dot, i) in pictures.get(one.at)?.dots" :key="i" :cx="dot.x" :cy="dot.y" r="2.6" />
        </svg>
        <select
          class="choice"
          :aria-label="`What ${one.name} moves`"
          :value="targets[one.at]?.object ?? ''"
          @change="aim(one.at, { object: ($event.target as HTMLSelectElement).value })"
        >
          <option value="">leave it out</option>
          <option v-for="thing in things" :key="thing.id" :value="thing.id">{{ thing.name }}</option>
        </select>
        <template v-if="targets[one.at]">
          <select
            class="choice"
            :aria-label="`Channel for ${one.name}`"
            :value="targets[one.at]!.channel"
            @change="aim(one.at, { channel: ($event.target as HTMLSelectElement).value })"
          >
            <option
              v-for="channel in channelsOf(targets[one.at]!.object, one.kind === 'colour')"
              :key="channel.name"
              :value="channel.name"
            >
              {{ channel.says }}
            </option>
          </select>
          <template v-if="one.kind === 'number'">
            <NumberField
              :label="`${one.name} times`"
              unit="×"
              :value="targets[one.at]!.scale"
              :step="0.1"
              :digits="3"
              @change="aim(one.at, { scale: $event })"
            />
            <NumberField
              :label="`${one.name} plus`"
              unit="+"
              :value="targets[one.at]!.offset"
              :digits="2"
              @change="aim(one.at, { offset: $event })"
            />
          </template>
        </template>
      </li>
    </ul>
    <fieldset>
      <label
        ><input v-model="thin" type="checkbox" /> few keys instead of noisy samples; largest distance from any
        sample</label
      >
      <NumberField
        label="How far from any sample the motion may pass"
        :value="tolerance"
        :low="0.0001"
        :step="0.5"
        :digits="3"
        :disabled="!thin"
        @change="tolerance = $event"
      />
    </fieldset>
    <p v-if="problem" class="problem" role="alert">{{ problem }}</p>
    <p v-else class="hint" aria-live="polite">
      {{ edit ? `${samples} samples become ${count} keys.` : "No column goes anywhere yet." }}
    </p>
    <template #footer>
      <button class="plain" @click="open = false">Leave it</button>
      <button class="primary" :disabled="!edit || problem !== null" @click="lay">Convert to keys</button>
    </template>
  </ElDialog>
</template>

<style scoped>
.hint {
  margin: 0 0 8px;
  color: var(--ink-2);
  font-size: 12.5px;
}
fieldset {
  border: 0;
  padding: 0;
  margin: 0 0 10px;
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
  align-items: center;
}
legend {
  float: left;
  font: 600 13px var(--heading);
  margin-right: 8px;
}
fieldset :deep(.field),
li :deep(.field) {
  max-width: 92px;
}
.columns {
  list-style: none;
  margin: 0 0 10px;
  padding: 0;
  display: grid;
  gap: 4px;
  /* The picture above must stay in sight. */
  max-height: 140px;
  overflow-y: auto;
}
.columns li {
  display: grid;
  grid-template-columns: 80px 150px minmax(86px, 1fr) minmax(120px, 1.2fr) 76px 76px;
  gap: 8px;
  align-items: center;
  border: 1px solid var(--line);
  border-radius: var(--radius-s);
  padding: 3px 8px;
}
.columns strong {
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
  font-size: 13px;
}
polyline {
  fill: none;
  stroke: #9fb3a6;
  stroke-width: 1.5;
}
.off polyline {
  stroke: var(--line);
}
circle {
  fill: var(--travel);
}
.choice {
  min-width: 0;
}
.problem {
  color: #8f1f3c;
  margin: 0 0 8px;
}
.plain {
  margin-right: 8px;
}
</style>
