<script setup lang="ts">
/** The sounds of the scene, below all other lanes, where they stay in sight. */
import SoundLane from "@/components/sound/SoundLane.vue";
import { useSounds } from "@/stores/sounds";

const sounds = useSounds();
</script>

<template>
  <div v-if="sounds.list.length" class="sounds" role="list" aria-label="Sounds">
    <SoundLane v-for="one in sounds.list" :key="one.id" :sound="one" />
  </div>
</template>

<style scoped>
.sounds {
  flex: none;
  /* Two are seen at once; more are scrolled to. */
  max-height: 71px;
  overflow-y: auto;
}
</style>
