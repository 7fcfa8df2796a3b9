<script setup lang="ts">
/**
 * Under the lane of a parade, a pale lane for each copy with the keys of its parts, as much later as it starts; pull
 * one to set the delay.
 */
import { computed } from "vue";
import { numberAt, valuesAt } from "@/api/motion";
import type { ParadeObject } from "@/api/types";
import { beginOwnDrag } from "@/composables/useDrag";
import SubLane from "@/components/sheet/SubLane.vue";
import { useChanging } from "@/composables/useChanging";
import { copyLanes } from "@/geometry/copyLanes";
import { withParts } from "@/picture/boxes";
import { usePlayback } from "@/stores/playback";
import { useScene } from "@/stores/scene";

const props = defineProps<{ thing: ParadeObject; perFrame: number; depth: number }>();
const scene = useScene();
const playback = usePlayback();
const changing = useChanging();

const baked = computed(() => scene.calmMotion?.objects.get(props.thing.id));
const lags = computed(() => {
  const rows = baked.value?.channels["copies.lag"];
  return rows ? [...valuesAt(rows, playback.textFrame)] : [];
});
const delay = computed(() => {
  const rows = baked.value?.channels["delay"];
  return rows ? numberAt(rows, playback.textFrame) : 0;
});
const keys = computed(() =>
  withParts(props.thing.id, scene.parts)
    .slice(1)
    .flatMap((id) =>
      Object.values(scene.byId.get(id)?.channels ?? {}).flatMap((channel) => channel.keys.map((key) => key.frame)),
    ),
);
const lanes = computed(() => copyLanes(lags.value, delay.value, keys.value));
const near = (frames: number): string => `${Number(frames.toFixed(1))}`;

function pull(event: PointerEvent, rank: number): void {
  if (!rank) return;
  const [from, before] = [event.clientX, delay.value];
  let now: number | null = null;
  beginOwnDrag(event, {
    move: (e) => {
      const by = (e.clientX - from) / props.perFrame / rank;
      now = e.altKey ? Number((before + by).toFixed(2)) : Math.round(before + by);
      changing.show(props.thing, { delay: now }, false);
    },
    end: (kept) => {
      if (kept && now !== null) void changing.make(props.thing, { delay: now });
      else scene.letGo();
    },
  });
}
const nudge = (by: number): void => void changing.make(props.thing, { delay: delay.value + by });
</script>

<template>
  <SubLane v-for="lane in lanes" :key="lane.copy" :depth="depth" :aria-label="`Copy ${lane.copy + 1} of ${thing.name}`">
    <template #name
      >copy {{ lane.copy + 1 }} <small>{{ lane.lag ? `${near(lane.lag)} later` : "leads" }}</small></template
    >
    <button
      v-if="lane.frames.length || lane.lag"
      class="bar"
      :class="{ lead: !lane.rank }"
      :style="{ left: `${lane.from * perFrame - 6}px`, width: `${(lane.to - lane.from) * perFrame + 12}px` }"
      :data-testid="`copy-lane-${lane.copy + 1}`"
      :aria-label="`Delay of copy ${lane.copy + 1}: ${near(lane.lag)} frames`"
      :title="
        lane.rank
          ? `Copy ${lane.copy + 1} starts ${near(lane.lag)} frames later: pull it to change the delay of all (Alt for parts of frames; arrow keys too)`
          : 'This copy leads: it shows the keys where they are'
      "
      @pointerdown="pull($event, lane.rank)"
      @keydown.left.prevent.stop="nudge(-1)"
      @keydown.right.prevent.stop="nudge(1)"
    >
      <i v-for="frame in lane.frames" :key="frame" :style="{ left: `${(frame - lane.from) * perFrame + 6}px` }" />
    </button>
  </SubLane>
</template>

<style scoped>
.bar {
  position: absolute;
  top: 4px;
  height: 12px;
  padding: 0;
  border: 0;
  border-radius: 6px;
  background: var(--travel-pale);
  cursor: ew-resize;
}
.bar.lead {
  cursor: default;
}
.bar:hover:not(.lead) {
  box-shadow: inset 0 0 0 1px var(--travel);
}
i {
  position: absolute;
  top: 3px;
  width: 6px;
  height: 6px;
  margin-left: -3px;
  border-radius: 0 3px 0 3px;
  background: var(--travel);
  opacity: 0.5;
}
</style>
