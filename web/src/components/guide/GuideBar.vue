<script setup lang="ts">
/**
 * The guided first scene: one line above the picture that says what to do next, and a ring around what it speaks of.
 */
import { useEventListener, useIntervalFn } from "@vueuse/core";
import { ref, watch } from "vue";
import { FIRST_SCENE } from "@/guide/firstScene";
import { useGuide } from "@/stores/guide";

const guide = useGuide();
/** Where the ring is, px of the page; none where what is spoken of cannot be seen. */
const ring = ref<Record<string, string> | null>(null);
const AIR = 5;

function place(): void {
  const found = guide.step ? document.querySelector(guide.step.at) : null;
  const rect = found?.getBoundingClientRect();
  ring.value = rect?.width
    ? {
        left: `${rect.left - AIR}px`,
        top: `${rect.top - AIR}px`,
        width: `${rect.width + 2 * AIR}px`,
        height: `${rect.height + 2 * AIR}px`,
      }
    : null;
}
watch(() => guide.step, place, { immediate: true, flush: "post" });
useEventListener(window, "resize", place);
// What is spoken of can move without the window being sized, as when a panel is.
useIntervalFn(place, 500);
</script>

<template>
  <aside class="guide" aria-label="First scene">
    <template v-if="guide.step">
      <span class="count">{{ guide.at + 1 }} of {{ FIRST_SCENE.length }}</span>
      <p aria-live="polite">
        <strong>{{ guide.step.title }}.</strong> {{ guide.step.says }}
        <kbd>{{ guide.step.keys }}</kbd>
      </p>
      <button class="chip small" title="Go on without it" @click="guide.skip()">Skip</button>
      <button class="chip small" title="Close the guide; F1 continues it here" @click="guide.leave()">Leave</button>
    </template>
    <template v-else>
      <p aria-live="polite">
        <strong>That is a scene.</strong> Two keys and three choices. You can change each choice at any time, or undo it
        with Ctrl+Z.
      </p>
      <button class="chip small" @click="guide.leave()">Done</button>
    </template>
    <Teleport to="body">
      <div v-if="ring && guide.step" class="guide-ring" :style="ring" aria-hidden="true" />
    </Teleport>
  </aside>
</template>

<style scoped>
.guide {
  position: absolute;
  inset: 0 0 auto;
  height: var(--guide);
  display: flex;
  align-items: center;
  gap: 10px;
  padding: 0 12px;
  background: var(--look-pale);
  border-bottom: 1px solid var(--line);
}
p {
  flex: 1;
  margin: 0;
  font-size: 13px;
  line-height: 1.25;
}
.count {
  flex: none;
  font: 600 12px var(--mono);
  color: var(--ink);
}
kbd {
  white-space: nowrap;
  color: var(--ink-2);
  font-size: 11.5px;
}
.chip {
  flex: none;
}
</style>

<style>
.guide-ring {
  position: fixed;
  z-index: 3000;
  border: 2.5px solid var(--look);
  border-radius: 12px;
  pointer-events: none;
  box-shadow: 0 0 0 4px #2f739f33;
}
</style>
