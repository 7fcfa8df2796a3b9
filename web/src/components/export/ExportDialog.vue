<script setup lang="ts">
/** Export: choose formats and options, see the very frame in advance, watch; and the list of all that was made. */
import { ElDialog, ElProgress } from "element-plus";
import { computed, ref, watch } from "vue";
import { ServiceError } from "@/api/client";
import ExportList from "@/components/export/ExportList.vue";
import ExportPreview from "@/components/export/ExportPreview.vue";
import ExportSettings from "@/components/export/ExportSettings.vue";
import FormatChoice from "@/components/export/FormatChoice.vue";
import { useExportOptions } from "@/composables/useExportOptions";
import { bytesText, secondsText } from "@/geometry/amounts";
import { fileOf, goesOn, useExports } from "@/stores/exports";
import { usePlayback } from "@/stores/playback";
import { useScene } from "@/stores/scene";

const open = defineModel<boolean>({ required: true });
const scene = useScene();
const playback = usePlayback();
const exports = useExports();
const tab = ref<"new" | "list">("new");
const { options, chosen, formats, looked, takes, single, look, size, problem, looking, choose } = useExportOptions(
  () => open.value && tab.value === "new",
);
const name = ref("");
const refused = ref<string | null>(null);
const busy = computed(() => exports.latest.some(goesOn));
const opaque = computed(() => formats.value.some((one) => one.opaque && chosen.value.includes(one.name)));
const data = computed(() => formats.value.every((one) => one.family === "data" || !chosen.value.includes(one.name)));

watch(
  open,
  (now) => {
    if (!now) return;
    // Frames are those of the current scene; all other options stay.
    Object.assign(options, { first: 0, last: playback.last });
    [name.value, refused.value] = ["", null];
    if (!busy.value) exports.settle();
    void exports.look();
  },
  { immediate: true },
);
watch(single, (one) => {
  const frame = Math.round(playback.frame);
  Object.assign(options, one ? { first: frame, last: frame } : { first: 0, last: playback.last });
});

async function start(): Promise<void> {
  refused.value = null;
  try {
    await exports.start(scene.id!, chosen.value, { ...options }, name.value || null);
  } catch (error) {
    if (!(error instanceof ServiceError)) throw error;
    refused.value = error.message;
  }
}
async function stop(): Promise<void> {
  for (const one of [...exports.latest].reverse()) if (goesOn(one)) await exports.cancel(one);
}
</script>

<template>
  <ElDialog v-model="open" title="Export" width="min(1000px, 94vw)" top="5vh" class="export-dialog">
    <div class="tabs" role="tablist">
      <button role="tab" :aria-selected="tab === 'new'" :class="{ on: tab === 'new' }" @click="tab = 'new'">New</button>
      <button role="tab" :aria-selected="tab === 'list'" :class="{ on: tab === 'list' }" @click="tab = 'list'">
        Made{{ exports.list.length ? ` (${exports.list.length})` : "" }}
      </button>
    </div>
    <div v-if="tab === 'list'" class="body"><ExportList /></div>
    <div v-else class="body new" :class="{ short: exports.latest.length }">
      <FormatChoice :formats="formats" :chosen="chosen" @choose="choose" />
      <div class="right">
        <ExportPreview
          :look="look"
          :size="size"
          :looking="looking"
          :problem="problem"
          :label="looked?.label ?? ''"
          :data="data"
        />
        <ExportSettings
          v-model="options"
          v-model:name="name"
          :takes="takes"
          :single="single"
          :opaque="opaque"
          :data="data"
        />
      </div>
    </div>
    <ul v-if="tab === 'new' && exports.latest.length" class="latest" aria-live="polite">
      <li v-for="one in exports.latest" :key="one.id">
        <template v-if="goesOn(one)">
          <ElProgress
            v-if="one.state === 'running'"
            :percentage="Math.round((100 * one.done) / Math.max(1, one.total))"
            :stroke-width="9"
            :aria-label="one.name"
          />
          <span v-if="one.state === 'waiting'">{{ one.name }} waits for its turn</span>
          <span v-else
            >{{ one.name }}: {{ one.done }} of {{ one.total }} frames{{
              one.left === null ? "" : `, ${secondsText(one.left)} left`
            }}</span
          >
        </template>
        <span v-else-if="one.state === 'done'"
          >Done: {{ one.total }} frame{{ one.total === 1 ? "" : "s" }}.
          <a :href="fileOf(one)" :download="one.name">Save {{ one.name }} again</a> ({{
            bytesText(one.size ?? 0)
          }})<template v-for="line in one.remarks" :key="line"> · {{ line }}</template></span
        >
        <span v-else-if="one.state === 'cancelled'">Stopped. Nothing was kept.</span>
        <span v-else class="problem" role="alert">{{ one.error }}</span>
      </li>
    </ul>
    <p v-if="refused" class="problem" role="alert">{{ refused }}</p>
    <template #footer>
      <span v-if="chosen.length > 1 && tab === 'new'" class="count">{{ chosen.length }} formats in one go</span>
      <button v-if="busy" class="plain" @click="stop">Stop</button>
      <button class="plain" @click="open = false">{{ busy ? "Go on working" : "Close" }}</button>
      <button v-if="tab === 'new'" class="primary" :disabled="busy || problem !== null" @click="start">
        {{ busy ? "Exporting…" : "Export" }}
      </button>
    </template>
  </ElDialog>
</template>

<style>
.export-dialog .el-dialog__body {
  padding-top: 0;
}
</style>
<style scoped>
.tabs {
  display: flex;
  gap: 4px;
  border-bottom: 1px solid var(--line);
  margin-bottom: 10px;
}
.tabs button {
  border: 0;
  background: none;
  font: 600 13.5px var(--heading);
  padding: 4px 12px 6px;
  border-bottom: 2px solid transparent;
  color: var(--ink-2);
  cursor: pointer;
}
.tabs .on {
  color: var(--ink);
  border-color: var(--travel);
}
.body {
  height: min(520px, 62vh);
}
.body.short {
  height: min(440px, 50vh);
}
.new {
  display: grid;
  grid-template-columns: 350px minmax(0, 1fr);
  gap: 18px;
}
.right {
  display: grid;
  gap: 10px;
  align-content: start;
  overflow-y: auto;
  padding-right: 4px;
}
.latest {
  list-style: none;
  margin: 8px 0 0;
  padding: 0;
  display: grid;
  gap: 4px;
  font-size: 13px;
  max-height: 96px;
  overflow-y: auto;
}
.latest a {
  color: var(--travel);
}
.count {
  color: var(--ink-2);
  margin-right: 12px;
  font-size: 13px;
}
.problem {
  color: #8f1f3c;
  margin: 6px 0 0;
}
.plain {
  margin-right: 8px;
}
</style>
