<script setup lang="ts">
/** The thread one pulls from what drives to what it shall drive. */
import { computed } from "vue";
import { useNames } from "@/composables/useNames";
import { useLinking } from "@/stores/linking";

const linking = useLinking();
const names = useNames();
const said = computed(() => {
  const drag = linking.drag;
  if (!drag) return "";
  const over = drag.over
    ? drag.over.channel
      ? names.placeName({ object: drag.over.object, channel: drag.over.channel })
      : names.objectName(drag.over.object)
    : "a value, or something in the picture";
  return `${names.placeName(drag.from)} drives ${over}`;
});
const way = computed(() => {
  const drag = linking.drag;
  if (!drag) return "";
  const { start, at } = drag;
  const sag = Math.min(60, Math.hypot(at.x - start.x, at.y - start.y) / 4);
  return `M${start.x} ${start.y}Q${(start.x + at.x) / 2} ${(start.y + at.y) / 2 + sag} ${at.x} ${at.y}`;
});
</script>

<template>
  <Teleport to="body">
    <div v-if="linking.drag" class="layer" aria-live="polite">
      <svg aria-hidden="true">
        <path :d="way" />
        <circle :cx="linking.drag.start.x" :cy="linking.drag.start.y" r="5" />
        <circle :class="{ over: linking.drag.over }" :cx="linking.drag.at.x" :cy="linking.drag.at.y" r="7" />
      </svg>
      <span :style="{ left: `${linking.drag.at.x + 14}px`, top: `${linking.drag.at.y + 12}px` }">{{ said }}</span>
    </div>
  </Teleport>
</template>

<style scoped>
.layer {
  position: fixed;
  inset: 0;
  z-index: 4000;
  pointer-events: none;
}
svg {
  width: 100%;
  height: 100%;
}
path {
  fill: none;
  stroke: var(--look);
  stroke-width: 2.5;
}
circle {
  fill: var(--look);
  stroke: var(--paper);
  stroke-width: 2;
}
.over {
  fill: var(--playhead);
}
span {
  position: absolute;
  background: var(--ink);
  color: var(--paper);
  border-radius: var(--radius-s);
  padding: 2px 8px;
  font-size: 12px;
  white-space: nowrap;
}
</style>
