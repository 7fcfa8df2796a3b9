<script setup lang="ts">
/** The frames that are played, and whether they are played round and round. */
import NumberField from "@/components/common/NumberField.vue";
import PopUp from "@/components/common/PopUp.vue";
import VineIcon from "@/components/common/VineIcon.vue";
import { usePlayback } from "@/stores/playback";

const playback = usePlayback();
</script>

<template>
  <PopUp :width="232" placement="bottom">
    <template #reference>
      <button
        class="chip"
        :class="{ still: !playback.loop }"
        title="Which frames play, and whether they start over"
        :aria-label="`Play range ${playback.from}–${playback.to}`"
      >
        <VineIcon :name="playback.loop ? 'loop' : 'after'" /> {{ playback.from }}–{{ playback.to }}
      </button>
    </template>
    <div class="range">
      <h3>Play range</h3>
      <div class="ends">
        <NumberField
          label="Play from frame"
          :value="playback.from"
          :digits="0"
          :low="0"
          :high="playback.last"
          @change="playback.setRange($event, playback.to)"
        />
        <span>to</span>
        <NumberField
          label="Play to frame"
          :value="playback.to"
          :digits="0"
          :low="0"
          :high="playback.last"
          @change="playback.setRange(playback.from, $event)"
        />
      </div>
      <div class="ends">
        <button class="chip" @click="playback.setRange(playback.frame, playback.to)">from here</button>
        <button class="chip" @click="playback.setRange(playback.from, playback.frame)">to here</button>
        <button class="chip" @click="playback.setRange(0, playback.last)">all</button>
      </div>
      <label class="loop"><input v-model="playback.loop" type="checkbox" /> loop playback</label>
    </div>
  </PopUp>
</template>

<style scoped>
.range {
  display: grid;
  gap: 10px;
}
h3 {
  font-size: 13px;
}
.ends {
  display: flex;
  gap: 6px;
  align-items: center;
}
.loop {
  display: flex;
  gap: 6px;
  align-items: center;
}
.still {
  color: var(--ink-2);
}
</style>
