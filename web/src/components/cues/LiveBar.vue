<script setup lang="ts">
/** What can be pressed while the picture waits, which cues run, and how to stop. */
import { useLive } from "@/stores/live";
import { useScene } from "@/stores/scene";
import { keyName } from "@/geometry/keyNames";

const live = useLive();
const scene = useScene();
</script>

<template>
  <div v-if="live.on" class="live" role="status" aria-label="Playing live">
    <strong>Live</strong>
    <span v-for="cue in live.cues" :key="cue.id" class="cue" :class="{ runs: live.running.has(cue.id) }"
      ><kbd v-if="cue.key">{{ keyName(cue.key) }}</kbd
      ><kbd v-else-if="cue.click" title="Click on it">{{ scene.byId.get(cue.click)?.name }}</kbd> {{ cue.name }}</span
    >
    <span class="count">{{ live.pressed ? `${live.pressed} recorded` : "waiting for a press" }}</span>
    <button class="primary" @click="live.end()">Stop <kbd>Esc</kbd></button>
  </div>
</template>

<style scoped>
.live {
  position: absolute;
  left: 12px;
  right: 12px;
  bottom: 8px;
  display: flex;
  align-items: center;
  gap: 3px 8px;
  font-size: 12.5px;
  flex-wrap: wrap;
  background: var(--ink);
  color: var(--paper);
  border-radius: 18px;
  padding: 5px 6px 5px 14px;
  box-shadow: 0 4px 16px #0003;
}
strong {
  color: #ff9db3;
}
.cue {
  display: flex;
  align-items: center;
  gap: 6px;
  padding: 2px 8px 2px 3px;
  border-radius: 99px;
}
.runs {
  background: var(--travel);
}
kbd {
  font: 700 12px var(--mono);
  background: #ffffff24;
  border-radius: 5px;
  padding: 1px 7px;
  text-transform: capitalize;
}
.count {
  margin-left: auto;
  color: #cfd6cf;
}
.primary {
  padding: 4px 12px;
}
</style>
