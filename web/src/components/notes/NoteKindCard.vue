<script setup lang="ts">
/**
 * One kind of note for the guide: the fault beside the same without it, both alive while they can be seen, and why it
 * matters.
 */
import { ref } from "vue";
import { api } from "@/api/client";
import type { NoteKindWords } from "@/api/types";
import MotionPicture from "@/components/common/MotionPicture.vue";
import { useMotionInView } from "@/composables/useMotionInView";

const props = defineProps<{ kind: NoteKindWords }>();
const card = ref<HTMLElement>();
const fault = useMotionInView(card, () => api.noteKindMotion(props.kind.name, "fault"));
const sound = useMotionInView(card, () => api.noteKindMotion(props.kind.name, "sound"));
function point(on: boolean): void {
  fault.pointed.value = sound.pointed.value = on;
}
</script>

<template>
  <article
    :id="kind.name"
    ref="card"
    class="card"
    :aria-label="kind.label"
    @pointerenter="point(true)"
    @pointerleave="point(false)"
  >
    <div class="pictures">
      <figure>
        <MotionPicture
          :motion="fault.motion.value"
          :playing="fault.playing.value && !kind.harmful"
          :width="kind.width"
          :height="kind.height"
        />
        <figcaption>{{ kind.harmful ? "so: held still, as it would flash at you" : "so" }}</figcaption>
      </figure>
      <figure>
        <MotionPicture
          :motion="sound.motion.value"
          :playing="sound.playing.value"
          :width="kind.width"
          :height="kind.height"
        />
        <figcaption>rather so</figcaption>
      </figure>
    </div>
    <h2>{{ kind.label }}</h2>
    <p>{{ kind.why }}</p>
  </article>
</template>

<style scoped>
.card {
  background: var(--paper);
  border: 1px solid var(--line);
  border-radius: 16px;
  overflow: hidden;
}
.pictures {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 2px;
}
figure {
  margin: 0;
}
figure :deep(canvas) {
  width: 100%;
  display: block;
}
figcaption {
  padding: 4px 10px 0;
  font-size: 12px;
  color: var(--ink-2);
}
h2 {
  font-size: 16px;
  padding: 8px 16px 0;
}
p {
  margin: 2px 16px 14px;
  color: var(--ink-2);
}
</style>
