<script setup lang="ts">
/** The very frame as it will be, how large the whole will be, and what cannot be kept. */
import { computed } from "vue";
import type { ExportLook } from "@/api/types";
import { bytesText, secondsText } from "@/geometry/amounts";

const props = defineProps<{
  look: ExportLook | null;
  size: number | null;
  looking: boolean;
  problem: string | null;
  label: string;
  data: boolean;
}>();
const facts = computed(() => {
  const one = props.look;
  if (!one) return "";
  const size = props.size === null ? "weighing…" : `about ${bytesText(props.size)}`;
  if (props.data) return size;
  const pictures = one.pictures === 1 ? "1 picture" : `${one.pictures} pictures`;
  const lasts = one.seconds ? ` · ${one.seconds < 10 ? one.seconds.toFixed(1) + " s" : secondsText(one.seconds)}` : "";
  return `${one.width} × ${one.height} px · ${pictures}${lasts} · ${size}`;
});
</script>

<template>
  <figure class="look" :aria-busy="looking">
    <div class="frame" :class="{ looking }">
      <img v-if="look?.picture" :src="look.picture" :alt="`The frame at the playhead as ${label}`" />
      <pre v-else-if="look?.text" tabindex="0">{{ look.text }}</pre>
      <span v-else-if="look">This format has no preview.</span>
      <span v-else-if="problem">No look</span>
      <span v-else>Looking…</span>
    </div>
    <figcaption>
      <span v-if="problem" class="problem" role="alert">{{ problem }}</span>
      <span v-else>{{ facts || "…" }}</span>
      <ul v-if="look?.remarks.length">
        <li v-for="one in look.remarks" :key="one">{{ one }}</li>
      </ul>
    </figcaption>
  </figure>
</template>

<style scoped>
.look {
  margin: 0;
  display: grid;
  gap: 6px;
}
.frame {
  height: 208px;
  display: grid;
  place-items: center;
  border: 1px solid var(--line);
  border-radius: var(--radius-s);
  overflow: hidden;
  color: var(--ink-2);
  background: repeating-conic-gradient(#efe8d8 0 25%, #fbf8f0 0 50%) 0 0 / 18px 18px;
  transition: opacity 0.2s;
}
.frame.looking img {
  opacity: 0.6;
}
img {
  max-width: 100%;
  max-height: 208px;
  object-fit: contain;
}
pre {
  margin: 0;
  width: 100%;
  height: 100%;
  overflow: auto;
  padding: 8px;
  box-sizing: border-box;
  background: var(--paper);
  font: 11.5px/1.4 var(--mono);
}
.frame span {
  background: var(--paper);
  padding: 4px 10px;
  border-radius: 99px;
  font-size: 12.5px;
}
figcaption {
  font-size: 12.5px;
  color: var(--ink-2);
  min-height: 20px;
}
ul {
  margin: 4px 0 0;
  padding-left: 18px;
}
.problem {
  color: #8f1f3c;
}
</style>
