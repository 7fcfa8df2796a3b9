<script setup lang="ts">
/** The name of the scene; a click lets one write another. */
import { nextTick, ref } from "vue";
import { useScene } from "@/stores/scene";

const scene = useScene();
const draft = ref<string | null>(null);
const input = ref<HTMLInputElement>();

async function begin(): Promise<void> {
  draft.value = scene.head?.name ?? "";
  await nextTick();
  input.value?.select();
}

function keep(): void {
  const name = draft.value?.trim();
  draft.value = null;
  if (name && name !== scene.head?.name) void scene.edit([{ edit: "rename-scene", name }]);
}
</script>

<template>
  <input
    v-if="draft !== null"
    ref="input"
    v-model="draft"
    class="name-input"
    aria-label="Name of the scene"
    maxlength="80"
    @keydown.enter="keep"
    @keydown.esc="draft = null"
    @blur="keep"
  />
  <button v-else class="quiet name" dir="auto" :title="`${scene.head?.name}: click to rename the scene`" @click="begin">
    {{ scene.head?.name }}
  </button>
</template>

<style scoped>
.name {
  font: 600 14px var(--heading);
  max-width: 190px;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.name-input {
  font: 600 14px var(--heading);
  width: 180px;
  border: 1px solid var(--travel);
  border-radius: var(--radius-s);
  padding: 4px 6px;
  background: var(--paper);
}
</style>
