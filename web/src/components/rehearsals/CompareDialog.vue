<script setup lang="ts">
/**
 * The scene beside a kept version of it, or beside what an edit would make of it: seen in step, listed, and chosen
 * from.
 */
import { useEventListener } from "@vueuse/core";
import { ElDialog } from "element-plus";
import { computed, ref, watch } from "vue";
import VineIcon from "@/components/common/VineIcon.vue";
import ComparePicture from "@/components/rehearsals/ComparePicture.vue";
import DifferenceList from "@/components/rehearsals/DifferenceList.vue";
import type { DifferenceWords } from "@/api/types";
import { differenceKey } from "@/geometry/differences";
import type { View } from "@/picture/compared";
import { usePlayback } from "@/stores/playback";
import { useRehearsals } from "@/stores/rehearsals";
import { useScene } from "@/stores/scene";
import { useSelection } from "@/stores/selection";

const rehearsals = useRehearsals();
const scene = useScene();
const selection = useSelection();
const playback = usePlayback();
const view = ref<View>("side");
const wipe = ref(0.5);
const showsPaths = ref(true);
const ticked = ref<ReadonlySet<string>>(new Set());
const open = computed({ get: () => rehearsals.other !== null, set: (now) => !now && rehearsals.close() });
const other = computed(() => rehearsals.other);
const kept = computed(() => other.value?.kind === "kept");
const names = computed(() => ({
  now: other.value?.kind === "edits" ? other.value.now : "Now",
  kept: other.value?.name ?? "",
}));
const VIEWS: readonly { view: View; says: string; about: string; key: string }[] = [
  { view: "side", says: "Side by side", about: "Both pictures in step", key: "1" },
  {
    view: "over",
    says: "Over each other",
    about: "In two tints: the current version green, the other version orange, dark where they overlap",
    key: "2",
  },
  { view: "wipe", says: "Wipe", about: "One on each side of a line that you drag", key: "3" },
];
/** The objects that differ, and the current one. */
const paths = computed(() => {
  const found = rehearsals.differences.flatMap((one) => (one.object && one.what === "channel" ? [one.object] : []));
  return showsPaths.value ? [...new Set([...found, ...(selection.objectId ? [selection.objectId] : [])])] : [];
});
const chosen = computed(() => rehearsals.differences.filter((one) => ticked.value.has(differenceKey(one))));
// Differences no longer is not ticked either.
watch(
  () => rehearsals.differences,
  () => (ticked.value = new Set(chosen.value.map(differenceKey))),
);

function goTo(one: DifferenceWords): void {
  if (one.at === null) return;
  playback.pause();
  playback.goTo(one.at);
}
async function take(): Promise<void> {
  if (other.value?.kind !== "edits") return;
  const { edits } = other.value;
  rehearsals.close();
  await scene.edit(edits);
}

useEventListener(window, "keydown", (event: KeyboardEvent) => open.value && key(event));
function key(event: KeyboardEvent): void {
  const target = event.target as HTMLElement;
  const pressed = event.key;
  if (event.ctrlKey || event.metaKey || event.altKey || target.closest("input[type=range]")) return;
  const found = VIEWS.find((one) => one.key === pressed);
  if (found) view.value = found.view;
  else if (pressed === " " && !target.closest("button, input")) playback.toggle();
  else if (pressed === "ArrowLeft") playback.goTo(playback.frame - 1);
  else if (pressed === "ArrowRight") playback.goTo(playback.frame + 1);
  else if (pressed === "Home") playback.goTo(playback.from);
  else if (pressed === "End") playback.goTo(playback.to);
  else return;
  event.preventDefault();
}
</script>

<template>
  <ElDialog v-model="open" fullscreen :show-close="false" class="compare-dialog" append-to-body>
    <template #header="{ titleId }">
      <div class="head">
        <h2 :id="titleId">{{ kept ? `Compare with ${names.kept}` : `${names.now} or ${names.kept}?` }}</h2>
        <div class="views" role="radiogroup" aria-label="Comparison mode">
          <button
            v-for="one in VIEWS"
            :key="one.view"
            class="chip"
            role="radio"
            :aria-checked="view === one.view"
            :class="{ on: view === one.view }"
            :title="`${one.about} (${one.key})`"
            @click="view = one.view"
          >
            {{ one.says }}
          </button>
        </div>
        <label class="paths-too" title="The paths of what differs, a dot a frame: close dots are slow"
          ><input v-model="showsPaths" type="checkbox" /> paths and spacing</label
        >
        <button class="round" aria-label="Close" title="Back to the scene (Escape)" @click="open = false">×</button>
      </div>
    </template>
    <div class="body" :class="view">
      <ComparePicture
        v-if="rehearsals.motion && scene.kept"
        v-model:wipe="wipe"
        :now="scene.kept"
        :kept="rehearsals.motion"
        :view="view"
        :frame="playback.frame"
        :paths="paths"
        :names="names"
      />
      <div v-else class="waiting">Fetching {{ names.kept }}…</div>
      <aside>
        <h3>
          {{ rehearsals.differences.length === 1 ? "One difference" : `${rehearsals.differences.length} differences` }}
        </h3>
        <DifferenceList
          v-model:ticked="ticked"
          :differences="rehearsals.differences"
          :looking="rehearsals.looking"
          :other="names.kept"
          :choosing="kept"
          @go-to="goTo"
        />
        <p class="sr-only" aria-live="polite">{{ rehearsals.differences.length }} differences</p>
      </aside>
      <footer>
        <button
          class="round play"
          :aria-label="playback.playing ? 'Pause both' : 'Play both'"
          title="Play both in sync (Space)"
          @click="playback.toggle()"
        >
          <VineIcon :name="playback.playing ? 'pause' : 'play'" :solid="!playback.playing" />
        </button>
        <input
          type="range"
          class="time"
          aria-label="Frame of both"
          min="0"
          :max="playback.last"
          :value="playback.frame"
          @input="playback.goTo(Number(($event.target as HTMLInputElement).value))"
        />
        <output class="frame">{{ playback.textFrame }}</output>
        <span class="room" />
        <template v-if="kept">
          <button
            class="plain"
            :disabled="!chosen.length"
            title="Restores only the ticked items"
            @click="rehearsals.bringBack(chosen)"
          >
            Bring back ticked{{ chosen.length ? ` (${chosen.length})` : "" }}
          </button>
          <button
            class="plain"
            :disabled="!rehearsals.differences.length"
            title="The scene becomes what it was in every respect; undo takes that back"
            @click="rehearsals.bringBack(null)"
          >
            Bring back all of {{ names.kept }}
          </button>
          <button class="primary" @click="open = false">Go on</button>
        </template>
        <template v-else>
          <button class="plain" @click="open = false">Leave {{ names.now }}</button>
          <button class="primary" @click="take">Take {{ names.kept }}</button>
        </template>
      </footer>
    </div>
  </ElDialog>
</template>

<style>
.compare-dialog.el-dialog {
  display: flex;
  flex-direction: column;
  padding: 12px 16px;
}
.compare-dialog .el-dialog__header {
  padding: 0 0 10px;
}
.compare-dialog .el-dialog__body {
  flex: 1;
  min-height: 0;
}
</style>

<style scoped>
.head {
  display: flex;
  align-items: center;
  gap: 16px;
}
h2 {
  font-size: 17px;
  flex: 1;
  min-width: 0;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
h3 {
  font-size: 13px;
  margin: 0 0 6px;
}
.views {
  display: flex;
  gap: 5px;
}
.chip.on {
  background: var(--travel-pale);
  border-color: var(--travel);
}
.paths-too {
  display: flex;
  gap: 6px;
  align-items: center;
}
.round {
  font-size: 20px;
}
.body {
  display: grid;
  grid-template: minmax(0, 1fr) auto / minmax(0, 1fr) 292px;
  gap: 12px 14px;
  height: 100%;
}
/* Beside each other, pictures want the whole width; the list has room below. */
.body.side {
  grid-template: minmax(0, 5fr) minmax(0, 4fr) auto / minmax(0, 1fr);
}
.waiting {
  display: grid;
  place-items: center;
  color: var(--ink-2);
}
aside {
  display: flex;
  flex-direction: column;
  min-height: 0;
}
footer {
  grid-column: 1 / -1;
  display: flex;
  align-items: center;
  gap: 10px;
}
.time {
  width: min(36vw, 480px);
  accent-color: var(--playhead);
}
.frame {
  font: 600 13px var(--mono);
  min-width: 3ch;
}
.room {
  flex: 1;
}
</style>
