<script setup lang="ts">
/** Play, pause, to the ends and from key to key, and the frame one is at. */
import { computed, ref } from "vue";
import VineIcon from "@/components/common/VineIcon.vue";
import PlayRange from "@/components/top/PlayRange.vue";
import { useKeyTravel } from "@/composables/useKeyTravel";
import { inSeconds, parseFrame } from "@/geometry/frames";
import { usePlayback } from "@/stores/playback";

const playback = usePlayback();
const { toKey } = useKeyTravel();
const draft = ref<string | null>(null);
const wrong = ref(false);
const field = ref<HTMLInputElement>();
const text = computed(() => draft.value ?? String(playback.frame));

function keep(): void {
  if (draft.value === null) return;
  const frame = parseFrame(draft.value, playback.fps, playback.frame);
  wrong.value = frame === null;
  if (frame === null) return;
  draft.value = null;
  playback.goTo(frame);
  field.value?.blur();
}

function drop(): void {
  draft.value = null;
  wrong.value = false;
  field.value?.blur();
}

defineExpose({ focus: () => field.value?.select() });
</script>

<template>
  <div class="transport" role="group" aria-label="Transport">
    <button
      class="round"
      title="First frame of the play range (Home)"
      aria-label="First frame"
      @click="playback.goTo(playback.from)"
    >
      <VineIcon name="first" solid />
    </button>
    <button class="quiet step" title="Previous key (Shift+,)" aria-label="Previous key: leaf" @click="toKey(-1)">
      <VineIcon name="before" /> leaf
    </button>
    <button
      class="play"
      :title="playback.playing ? 'Pause (Space)' : 'Play (Space)'"
      :aria-label="playback.playing ? 'Pause' : 'Play'"
      @click="playback.toggle"
    >
      <VineIcon :name="playback.playing ? 'pause' : 'play'" solid />
    </button>
    <button class="quiet step" title="Next key (Shift+.)" aria-label="Next key: leaf" @click="toKey(1)">
      leaf <VineIcon name="after" />
    </button>
    <button
      class="round"
      title="Last frame of the play range (End)"
      aria-label="Last frame"
      @click="playback.goTo(playback.to)"
    >
      <VineIcon name="last" solid />
    </button>
    <label
      class="frame"
      :class="{ wrong }"
      title="The frame shown. Type a frame (24), seconds (1.5s) or a step (+6). (F)"
    >
      <span class="sr-only">Frame</span>
      <input
        id="frame-field"
        ref="field"
        :value="text"
        inputmode="decimal"
        autocomplete="off"
        :aria-invalid="wrong"
        @focus="field?.select()"
        @input="draft = ($event.target as HTMLInputElement).value"
        @keydown.enter.prevent="keep"
        @keydown.esc.stop="drop"
        @blur="drop"
      />
    </label>
    <span class="seconds">{{ inSeconds(playback.frame, playback.fps) }}</span>
    <PlayRange />
  </div>
</template>

<style scoped>
.transport {
  display: flex;
  align-items: center;
  gap: 4px;
}
.play {
  width: 46px;
  height: 30px;
  border: 0;
  border-radius: 99px;
  background: var(--travel);
  color: var(--paper);
  display: grid;
  place-items: center;
  cursor: pointer;
  margin: 0 2px;
}
.step {
  display: flex;
  align-items: center;
  gap: 1px;
  padding: 4px 4px;
}
.frame {
  background: var(--paper-3);
  border-radius: var(--radius-s);
  padding: 4px 6px;
  border: 1px solid transparent;
  margin-left: 4px;
}
.frame:focus-within {
  border-color: var(--travel);
  background: var(--paper);
}
.wrong {
  border-color: var(--playhead) !important;
}
.frame input {
  width: 40px;
  border: 0;
  background: none;
  padding: 0;
  text-align: center;
  font: 700 15px var(--mono);
  color: var(--ink);
  outline: none;
}
.seconds {
  color: var(--ink-2);
  font-size: 12px;
  min-width: 46px;
  text-align: right;
  font-variant-numeric: tabular-nums;
  white-space: nowrap;
  margin-right: 2px;
}
@media (max-width: 1220px) {
  /* So that the scene keeps its name. */
  .seconds {
    display: none;
  }
}
</style>
