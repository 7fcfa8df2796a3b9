<script setup lang="ts">
/** An even beat for walks and loops, and markers tapped by hand. */
import { computed } from "vue";
import NumberField from "@/components/common/NumberField.vue";
import type { Beat } from "@/api/types";
import { usePlayback } from "@/stores/playback";
import { useScene } from "@/stores/scene";
import { useSounds } from "@/stores/sounds";

const sounds = useSounds();
const playback = usePlayback();
const scene = useScene();
const apart = computed(() => (sounds.beat ? (playback.fps * 60) / sounds.beat.minute : 0));
const set = (change: Partial<Beat>): void =>
  void sounds.setBeat({ minute: 120, first: 0, bar: 4, ...sounds.beat, ...change });
/** For a loop: the whole number of bars nearest to its current length. */
const bars = computed(() => {
  if (!sounds.beat) return null;
  const bar = apart.value * sounds.beat.bar;
  const count = Math.max(1, Math.round((playback.last + 1) / bar));
  const length = Math.round(count * bar);
  return length === playback.last + 1 ? null : { count, length };
});
const said = computed(() => {
  const count = sounds.markers.length;
  if (!count) return "Press S to lay one where the playhead is, or tap S along while it plays. Leaves snap to them.";
  return `${count === 1 ? "One is" : `${count} are`} laid. S lays another, or takes the one here away.`;
});
</script>

<template>
  <fieldset>
    <legend>Beat</legend>
    <template v-if="sounds.beat">
      <div class="line">
        <NumberField
          label="Beats a minute"
          :value="sounds.beat.minute"
          :low="10"
          :high="600"
          :step="1"
          :digits="1"
          @change="set({ minute: $event })"
        />
        <span>a minute, from frame</span>
        <NumberField
          label="Frame of a first beat"
          :value="sounds.beat.first"
          :low="-100000"
          :high="100000"
          :digits="1"
          @change="set({ first: $event })"
        />
      </div>
      <div class="line">
        <NumberField
          label="Beats of a bar"
          :value="sounds.beat.bar"
          :low="1"
          :high="32"
          :digits="0"
          @change="set({ bar: Math.round($event) })"
        />
        <span>a bar · {{ Number(apart.toFixed(2)) }} frames a beat</span>
      </div>
    </template>
    <p v-else>Beats per minute. Motion, walks and loops can follow the beat.</p>
    <div class="line">
      <button v-if="!sounds.beat" class="chip" @click="set({})">Set a beat</button>
      <button
        v-if="sounds.picked"
        class="chip"
        :title="`As ${sounds.picked.name} has it, from its first stroke on`"
        @click="sounds.takeBeat(sounds.picked)"
      >
        Take it from {{ sounds.picked.name }}
      </button>
      <template v-if="sounds.beat">
        <button class="chip" @click="sounds.lay('beat')">Motion on it…</button>
        <button
          v-if="bars"
          class="chip"
          :title="`${bars.length} frames, so that a loop begins again on the beat`"
          @click="scene.edit([{ edit: 'set-length', length: bars.length, stretch: false }])"
        >
          {{ bars.count }} whole {{ bars.count === 1 ? "bar" : "bars" }}
        </button>
        <button class="chip" @click="sounds.setBeat(null)">No beat</button>
      </template>
    </div>
  </fieldset>
  <fieldset>
    <legend>Markers</legend>
    <p>{{ said }}</p>
    <div class="line">
      <button class="chip" title="Add or remove a marker at the playhead (S)" @click="sounds.tap()">
        {{ sounds.markers.some((one) => one.frame === playback.textFrame) ? "Take this one away" : "Lay one here" }}
      </button>
      <template v-if="sounds.markers.length">
        <button class="chip" @click="sounds.lay('markers')">Motion on them…</button>
        <button class="chip" @click="sounds.setMarkers([])">Take all away</button>
      </template>
    </div>
  </fieldset>
</template>

<style scoped>
fieldset {
  border: 0;
  border-top: 1px solid var(--line);
  margin: 0;
  padding: 6px 0 0;
  display: grid;
  gap: 6px;
}
legend {
  padding: 0 6px 0 0;
  font: 600 12.5px var(--heading);
}
.line {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 6px;
}
p,
span {
  margin: 0;
  color: var(--ink-2);
  font-size: 12.5px;
}
</style>
