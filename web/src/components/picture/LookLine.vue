<script setup lang="ts">
/** Says that a trial change is not stored, with buttons to key or cancel it. */
import { useScene } from "@/stores/scene";

const scene = useScene();
</script>

<template>
  <div v-if="scene.look?.said" class="look" role="status">
    <span><strong>For looking only:</strong> {{ scene.look.said }} is not keyed.</span>
    <button class="primary" @click="scene.keepLook()">Key it</button>
    <button class="plain" @click="scene.letGo()">Let it go</button>
  </div>
</template>

<style scoped>
.look {
  position: absolute;
  left: 50%;
  top: calc(var(--guide, 0px) + 10px);
  transform: translateX(-50%);
  display: flex;
  align-items: center;
  gap: 8px;
  background: var(--playhead-pale);
  border: 1px solid #e9a9b8;
  border-radius: 99px;
  padding: 5px 6px 5px 16px;
  box-shadow: 0 4px 16px #0002;
  white-space: nowrap;
}
.look button {
  padding: 4px 12px;
}
</style>
