<script setup lang="ts">
/** The time sheet: a ruler with the playhead, and a lane per object and keyed row. */
import { useElementSize } from "@vueuse/core";
import { computed, ref } from "vue";
import CurveView from "@/components/curves/CurveView.vue";
import ClearDialog from "@/components/sheet/ClearDialog.vue";
import LeafActions from "@/components/sheet/LeafActions.vue";
import SheetLane from "@/components/sheet/SheetLane.vue";
import SheetPlayhead from "@/components/sheet/SheetPlayhead.vue";
import SheetRuler from "@/components/sheet/SheetRuler.vue";
import { useLanes } from "@/composables/useLanes";
import { useLeafActions } from "@/composables/useLeafActions";
import { useLeafDrag } from "@/composables/useLeafDrag";
import { usePlayback } from "@/stores/playback";
import { useScene } from "@/stores/scene";
import { useSelection } from "@/stores/selection";

const NAMES = 204;
const AIR = 22;
const scene = useScene();
const playback = usePlayback();
const selection = useSelection();
const body = ref<HTMLElement>();
const { width } = useElementSize(body);
const { lanes, opened, open } = useLanes();

/** Pixels per frame: the whole scene fits. */
const perFrame = computed(() => Math.max(0.02, (width.value - NAMES - AIR * 2) / Math.max(1, playback.last)));
const leaf = useLeafActions();
const drag = useLeafDrag(() => perFrame.value);
const nothingKeyed = computed(() => scene.objects.length > 0 && lanes.value.every((lane) => lane.frames.length === 0));
</script>

<template>
  <section ref="body" class="sheet" aria-label="Time sheet" :style="{ '--names': `${NAMES}px`, '--air': `${AIR}px` }">
    <SheetRuler :per-frame="perFrame" :names="NAMES" :air="AIR" />
    <CurveView v-if="selection.sheetTab === 'curves'" :per-frame="perFrame" :names="NAMES" :air="AIR" />
    <div v-else class="lanes" :class="{ under: selection.leaves.size > 0 }" role="list">
      <SheetLane
        v-for="lane in lanes"
        :key="lane.key"
        :lane="lane"
        :per-frame="perFrame"
        :opened="opened.has(lane.thing.id)"
        :sliding="drag.sliding.value?.lane === lane.key ? drag.sliding.value : null"
        @open="open(lane.thing.id)"
        @grip="drag.begin"
        @nudge="drag.nudge"
        @remove="leaf.remove"
      />
      <p v-if="!scene.objects.length" class="hint">The time sheet shows when things move. Add an object, then key it with the leaf beside its values.</p>
      <p v-else-if="nothingKeyed" class="hint">Nothing is keyed yet. Pick an object, click the leaf beside Travel, go to another frame and move it.</p>
    </div>
    <LeafActions v-if="selection.sheetTab === 'sheet'" />
    <ClearDialog />
    <SheetPlayhead :start="NAMES + AIR" :per-frame="perFrame" />
  </section>
</template>

<style scoped>
.sheet { position: relative; display: flex; flex-direction: column; min-height: 0; border-top: 1px solid var(--line); background: var(--paper); overflow: hidden; }
.lanes { overflow-y: auto; overflow-x: hidden; flex: 1; }
/* Room for the bar of what can be done with picked leaves. */
.lanes.under { padding-bottom: 48px; }
.hint { margin: 10px 14px 10px calc(var(--names) + 2 * var(--air)); color: var(--ink-2); }
</style>
