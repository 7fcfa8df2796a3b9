<script setup lang="ts">
/** Asks which value stays when all keys go, with a live look at each answer. */
import { ElDialog } from "element-plus";
import { ref, watch } from "vue";
import type { Keep } from "@/api/edits";
import { useLeafActions } from "@/composables/keys/useLeafActions";
import { usePlayback } from "@/stores/playback";
import { useScene } from "@/stores/scene";

const scene = useScene();
const playback = usePlayback();
const leaf = useLeafActions();
const keep = ref<Keep>("first");
const CHOICES: readonly { keep: Keep; says: string }[] = [
  { keep: "first", says: "that of the first key" },
  { keep: "frame", says: "that of this frame" },
  { keep: "base", says: "the one it had before it was keyed" },
];

watch(
  [leaf.clearing, keep],
  ([clearing]) => clearing && void scene.lookAt(leaf.dropEdits(clearing.picked, keep.value)),
);

async function done(): Promise<void> {
  const clearing = leaf.clearing.value;
  leaf.clearing.value = null;
  if (clearing) await leaf.drop(clearing.picked, keep.value);
}

function leave(): void {
  if (!leaf.clearing.value) return;
  leaf.clearing.value = null;
  scene.letGo();
}
</script>

<template>
  <ElDialog
    :model-value="leaf.clearing.value !== null"
    title="Delete all these keys?"
    width="400"
    modal-class="see-through"
    top="8vh"
    @close="leave"
  >
    <p>
      {{ leaf.clearing.value?.name }} will lose
      {{ leaf.clearing.value?.picked.reduce((sum, one) => sum + one.frames.length, 0) }} keys, and what they moved
      stands still. Which value stays? The picture shows it.
    </p>
    <label v-for="choice in CHOICES" :key="choice.keep" class="choice" :class="{ on: keep === choice.keep }">
      <input v-model="keep" type="radio" name="keep" :value="choice.keep" /> {{ choice.says
      }}<template v-if="choice.keep === 'frame'"> ({{ playback.frame }})</template>
    </label>
    <template #footer>
      <button class="plain" @click="leave">Keep the keys</button>
      <button class="primary" @click="done">Delete the keys</button>
    </template>
  </ElDialog>
</template>

<style scoped>
p {
  margin: 0 0 10px;
  color: var(--ink-2);
}
.choice {
  display: flex;
  gap: 8px;
  padding: 6px 10px;
  border: 1px solid var(--line);
  border-radius: var(--radius);
  margin-bottom: 6px;
  cursor: pointer;
}
.on {
  border-color: var(--travel);
  background: var(--travel-pale);
}
.plain {
  margin-right: 8px;
}
</style>

<style>
/* Dialogs that show what they do in the picture are beside it. */
.see-through {
  background: transparent;
}
.see-through .el-dialog {
  margin: 56px 12px 0 auto;
}
</style>
