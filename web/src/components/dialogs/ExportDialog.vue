<script setup lang="ts">
/** Export: choose, watch the progress, stop, fetch. */
import { useIntervalFn } from "@vueuse/core";
import { ElDialog, ElProgress } from "element-plus";
import { computed, ref, watch } from "vue";
import { api, ServiceError } from "@/api/client";
import type { ExportState } from "@/api/types";
import ColourField from "@/components/values/ColourField.vue";
import FindField from "@/components/common/FindField.vue";
import NumberField from "@/components/common/NumberField.vue";
import { useFigure } from "@/composables/useFigure";
import { narrowed } from "@/geometry/finding";
import { rgbaOf } from "@/geometry/colour";
import { usePlayback } from "@/stores/playback";
import { useScene } from "@/stores/scene";
import { useVocabulary } from "@/stores/vocabulary";

const open = defineModel<boolean>({ required: true });
const scene = useScene();
const vocabulary = useVocabulary();
const playback = usePlayback();
const figure = useFigure();
const format = ref("mp4");
/** The formats that are left while something is typed. */
const typed = ref("");
const formats = computed(() => narrowed(vocabulary.words?.formats ?? [], typed.value));
const scale = ref(1);
const [first, last] = [ref(0), ref(0)];
/** One cycle of the picked figure that walks on the spot, in whole frames; null where there is none. */
const cycle = computed(() => {
  const frames = figure.number("treadmill");
  return frames === null ? null : Math.min(Math.round(frames), playback.last + 1);
});
function between(a: number, b: number): void {
  [first.value, last.value] = [a, b];
}
watch(open, (now) => now && between(0, playback.last), { immediate: true });
/** The colour under a see-through background, where the format cannot be seen through. */
const under = ref("#FFFFFF");
const needsUnder = computed(() => {
  const chosen = vocabulary.words?.formats.find((one) => one.name === format.value);
  return !!chosen?.opaque && scene.head !== null && rgbaOf(scene.head.background)[3] < 1;
});
const job = ref<ExportState | null>(null);
const problem = ref<string | null>(null);
const running = computed(() => job.value?.state === "running");
const percent = computed(() => (job.value ? Math.round((job.value.done / job.value.total) * 100) : 0));
const sizes = computed(() =>
  [1, 0.5, 0.25].map((share) => ({
    share,
    says: `${Math.round((scene.head?.size[0] ?? 0) * share)} × ${Math.round((scene.head?.size[1] ?? 0) * share)}`,
  })),
);

const poll = useIntervalFn(look, 150, { immediate: false });

async function attempt<T>(work: () => Promise<T>): Promise<T | null> {
  try {
    return await work();
  } catch (error) {
    if (!(error instanceof ServiceError)) throw error;
    problem.value = error.message;
    poll.pause();
    return null;
  }
}

async function start(): Promise<void> {
  problem.value = null;
  job.value = await attempt(() =>
    api.startExport(scene.id!, {
      format: format.value,
      scale: scale.value,
      first: first.value,
      last: last.value,
      under: under.value,
    }),
  );
  if (job.value) poll.resume();
}

async function look(): Promise<void> {
  if (!job.value) return;
  const now = await attempt(() => api.exportState(job.value!.id));
  if (!now) return;
  job.value = now;
  if (now.state === "running") return;
  poll.pause();
  if (now.state === "failed") problem.value = now.error;
  if (now.state === "done") fetchFile();
}

function fetchFile(): void {
  const link = document.createElement("a");
  link.href = `/api/exports/${job.value!.id}/file`;
  link.download = job.value!.file_name;
  link.click();
}

async function stop(): Promise<void> {
  if (job.value) await attempt(() => api.cancelExport(job.value!.id));
}

/** Closing while it runs stops it: nothing works on unseen. */
async function closed(): Promise<void> {
  if (running.value) await stop();
  poll.pause();
  job.value = null;
  problem.value = null;
}
</script>

<template>
  <ElDialog v-model="open" title="Export" width="640" top="8vh" @close="closed">
    <fieldset :disabled="running" class="formats">
      <legend>Format</legend>
      <FindField v-model="typed" label="Find a format" class="find" @take="formats[0] && (format = formats[0].name)" />
      <p v-if="!formats.length">Nothing is called so. Try fewer letters.</p>
      <label v-for="one in formats" :key="one.name" class="choice" :class="{ on: format === one.name }">
        <input v-model="format" type="radio" name="format" :value="one.name" /> <strong>{{ one.label }}</strong><span>{{
          one.about
        }}</span>
      </label>
    </fieldset>
    <fieldset v-if="needsUnder" :disabled="running" class="under">
      <legend>Under the background</legend>
      <ColourField label="Colour under the background" :rgba="rgbaOf(under)" @change="under = $event.slice(0, 7)" />
      <p>The background can be seen through, and this format cannot: the colour lies under it.</p>
    </fieldset>
    <fieldset :disabled="running" class="sizes">
      <legend>Size</legend>
      <label v-for="size in sizes" :key="size.share" class="chip" :class="{ on: scale === size.share }"
        ><input v-model="scale" type="radio" name="size" :value="size.share" /> {{ size.says }}</label
      >
    </fieldset>
    <fieldset :disabled="running" class="frames">
      <legend>Frames</legend>
      <NumberField
        label="First frame to export"
        :value="first"
        :step="1"
        :low="0"
        :high="playback.last"
        :digits="0"
        @change="first = $event"
      />
      to
      <NumberField
        label="Last frame to export"
        :value="last"
        :step="1"
        :low="0"
        :high="playback.last"
        :digits="0"
        @change="last = $event"
      />
      <button class="chip" :class="{ on: first === 0 && last === playback.last }" @click="between(0, playback.last)">
        all
      </button>
      <button
        v-if="playback.from > 0 || playback.to < playback.last"
        class="chip"
        @click="between(playback.from, playback.to)"
      >
        play range
      </button>
      <button
        v-if="cycle"
        class="chip"
        :class="{ on: first === 0 && last === cycle - 1 }"
        title="One cycle of the picked figure's walk on the spot"
        @click="between(0, cycle - 1)"
      >
        one cycle
      </button>
    </fieldset>
    <div v-if="job" class="progress" aria-live="polite">
      <ElProgress :percentage="percent" :stroke-width="10" :status="job.state === 'done' ? 'success' : undefined" />
      <p v-if="job.state === 'running'">{{ job.done }} of {{ job.total }} frames</p>
      <p v-else-if="job.state === 'done'">
        Done: {{ job.total }} frames.
        <a :href="`/api/exports/${job.id}/file`" :download="job.file_name">Save {{ job.file_name }} again</a>
      </p>
      <p v-else-if="job.state === 'cancelled'">Stopped. Nothing was kept.</p>
    </div>
    <p v-if="problem" class="problem" role="alert">{{ problem }}</p>
    <template #footer>
      <button v-if="running" class="plain" @click="stop">Stop</button>
      <button v-else class="plain" @click="open = false">Close</button>
      <button class="primary" :disabled="running" @click="start">{{ running ? "Exporting…" : "Export" }}</button>
    </template>
  </ElDialog>
</template>

<style scoped>
.formats {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 6px 10px;
}
.formats .find,
.formats p {
  grid-column: 1 / -1;
}
.formats .choice {
  margin: 0;
}
fieldset {
  border: 0;
  padding: 0;
  margin: 0 0 14px;
  display: grid;
  gap: 6px;
}
.frames {
  display: flex;
  align-items: center;
}
.frames :deep(.field) {
  max-width: 70px;
}
.sizes {
  display: flex;
  flex-wrap: wrap;
}
.under {
  grid-template-columns: 130px 1fr;
  align-items: center;
}
.under p {
  margin: 0;
  color: var(--ink-2);
  font-size: 13px;
}
legend {
  font: 600 13px var(--heading);
  padding: 0 0 6px;
}
.choice {
  display: flex;
  gap: 8px;
  align-items: baseline;
  border: 1px solid var(--line);
  border-radius: var(--radius);
  padding: 8px 10px;
  cursor: pointer;
}
.choice strong {
  white-space: nowrap;
}
.choice span {
  color: var(--ink-2);
  font-size: 13px;
}
.choice.on,
.chip.on {
  border-color: var(--travel);
  background: var(--travel-pale);
}
.progress p {
  margin: 4px 0 0;
  color: var(--ink-2);
}
.problem {
  color: #8f1f3c;
}
.plain {
  margin-right: 8px;
}
</style>
