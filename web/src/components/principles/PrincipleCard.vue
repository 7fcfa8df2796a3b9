<script setup lang="ts">
/** One principle: its small scene, alive while it can be seen, and what there is to say. */
import { ref } from "vue";
import { api } from "@/api/client";
import type { PrincipleWords } from "@/api/types";
import { useMotionInView } from "@/composables/useMotionInView";
import MotionPicture from "@/components/common/MotionPicture.vue";

const props = defineProps<{ principle: PrincipleWords; place: number; opening: boolean }>();
const emit = defineEmits<{ open: [] }>();
const card = ref<HTMLElement>();
const { motion, playing, pointed } = useMotionInView(card, () => api.principleMotion(props.principle.name));
</script>

<template>
  <article
    ref="card"
    class="card"
    :aria-label="principle.label"
    @pointerenter="pointed = true"
    @pointerleave="pointed = false"
  >
    <div class="picture">
      <MotionPicture
        :motion="motion"
        :playing="playing"
        :width="principle.width * 1.5"
        :height="principle.height * 1.5"
      />
    </div>
    <h2>
      <span>{{ place }}</span> {{ principle.label }}
    </h2>
    <p>{{ principle.about }}</p>
    <dl>
      <dt>Here</dt>
      <dd>{{ principle.ours }}</dd>
      <dt>Not for</dt>
      <dd>{{ principle.beware }}</dd>
    </dl>
    <button
      class="chip"
      :disabled="opening"
      :aria-label="`${opening ? 'Opening…' : 'Open as a scene'}: ${principle.label}`"
      @click="emit('open')"
    >
      {{ opening ? "Opening…" : "Open as a scene" }}
    </button>
  </article>
</template>

<style scoped>
.card {
  background: var(--paper);
  border: 1px solid var(--line);
  border-radius: 16px;
  overflow: hidden;
  display: flex;
  flex-direction: column;
  padding-bottom: 14px;
}
.picture {
  aspect-ratio: 16 / 9;
  background: var(--paper-3);
  display: grid;
  place-items: center;
}
h2 {
  font-size: 16px;
  padding: 12px 16px 0;
}
h2 span {
  color: var(--ink-3);
  font: 13px var(--mono);
  margin-right: 4px;
}
p {
  margin: 4px 16px 8px;
}
dl {
  display: grid;
  grid-template-columns: 52px 1fr;
  gap: 5px 8px;
  margin: 0 16px 12px;
  font-size: 13px;
  flex: 1;
  align-content: start;
}
dt {
  font-weight: 600;
  color: var(--travel);
}
dd {
  margin: 0;
  color: var(--ink-2);
}
.chip {
  align-self: flex-start;
  margin-left: 16px;
}
</style>
