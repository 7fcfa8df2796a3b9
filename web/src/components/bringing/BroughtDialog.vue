<script setup lang="ts">
/** What came of a drawing or scene that was brought in: its parts by name, and what could not be kept. */
import { ElDialog } from "element-plus";
import { computed } from "vue";
import { useBringIn } from "@/composables/bringing/useBringIn";
import { useScene } from "@/stores/scene";
import { useSelection } from "@/stores/selection";

/** Parts that are listed; of more, how many there are. */
const MOST = 200;
const { report } = useBringIn();
const scene = useScene();
const selection = useSelection();
const open = computed({ get: () => report.value !== null, set: (now) => !now && (report.value = null) });
const parts = computed(() => report.value?.parts ?? []);

async function takeBack(): Promise<void> {
  report.value = null;
  await scene.undo();
}
</script>

<template>
  <ElDialog v-model="open" :title="`Brought in: ${report?.name}`" width="560" top="10vh">
    <section v-if="report?.lost.length" class="lost">
      <h3>Left out</h3>
      <ul>
        <li v-for="one in report.lost" :key="one">{{ one }}</li>
      </ul>
      <p>The file is unchanged. These parts cannot be drawn in a scene.</p>
    </section>
    <p v-else class="all">Everything in the file is here.</p>
    <h3>{{ parts.length === 1 ? "One part" : `${parts.length} parts` }}, ready to move</h3>
    <ul class="parts" aria-label="Parts brought in">
      <li v-for="one in parts.slice(0, MOST)" :key="one.id" :style="{ paddingLeft: `${one.depth * 18}px` }">
        <button class="part" :class="{ on: selection.objectId === one.id }" @click="selection.pick(one.id)">
          {{ one.name }}
        </button>
      </li>
      <li v-if="parts.length > MOST">and {{ parts.length - MOST }} more</li>
    </ul>
    <template #footer>
      <button class="plain" title="Undo the import (Ctrl+Z)" @click="takeBack">Undo the import</button>
      <button class="primary" @click="open = false">OK</button>
    </template>
  </ElDialog>
</template>

<style scoped>
h3 {
  font: 600 13px var(--heading);
  margin: 10px 0 4px;
}
.lost {
  border: 1px solid #e3c06c;
  background: #fdf5dc;
  border-radius: var(--radius);
  padding: 2px 14px 8px;
}
.lost ul {
  margin: 0;
  padding-left: 18px;
}
.lost p,
.all {
  margin: 6px 0 0;
  color: var(--ink-2);
  font-size: 12.5px;
}
.parts {
  list-style: none;
  margin: 0;
  padding: 0;
  max-height: 34vh;
  overflow-y: auto;
}
.part {
  border: 0;
  background: none;
  font: inherit;
  font-size: 13.5px;
  padding: 2px 8px;
  border-radius: var(--radius-s);
  cursor: pointer;
}
.part:hover,
.part.on {
  background: var(--travel-pale);
}
.plain {
  margin-right: 8px;
}
</style>
