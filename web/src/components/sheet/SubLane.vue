<script setup lang="ts">
/** A low lane under the lane of an object, with a name and a strip of its own. */
defineProps<{ depth: number; title?: string }>();
</script>

<template>
  <div class="lane" role="listitem">
    <div class="name" :style="{ paddingLeft: `${34 + depth * 14}px` }" :title="title">
      <span class="text"><slot name="name" /></span>
    </div>
    <div class="track">
      <div class="strip"><slot /></div>
    </div>
  </div>
</template>

<style scoped>
.lane {
  display: flex;
  height: 20px;
}
.name {
  width: var(--names);
  flex: none;
  display: flex;
  align-items: center;
  color: var(--ink-2);
  overflow: hidden;
}
.text {
  white-space: nowrap;
  font-size: 12.5px;
}
.text :slotted(small) {
  font-size: 11px;
  color: var(--ink-3);
  margin-left: 4px;
}
.track {
  position: relative;
  flex: 1;
  padding: 0 var(--air);
  overflow: clip;
}
.strip {
  position: relative;
  height: 100%;
  transform: translateX(calc(-1 * var(--scroll)));
}
</style>
