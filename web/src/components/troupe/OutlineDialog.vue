<script setup lang="ts">
/** A new outline from SVG path data that is pasted. */
import { ElDialog, ElInput } from "element-plus";
import { ref, watch } from "vue";

const open = defineModel<boolean>({ required: true });
const props = defineProps<{ initial?: string }>();
const emit = defineEmits<{ done: [pathData: string] }>();
const data = ref("");
watch(open, (now) => now && (data.value = props.initial ?? ""), { immediate: true });

function done(): void {
  if (!data.value.trim()) return;
  open.value = false;
  emit("done", data.value.trim());
}
</script>

<template>
  <ElDialog v-model="open" title="Outline from SVG path data" width="460" append-to-body>
    <p>Paste the <code>d</code> attribute of an SVG path. The point 0 0 becomes the object's centre.</p>
    <ElInput
      v-model="data"
      type="textarea"
      :rows="6"
      placeholder="M 0 -40 C 40 -30 40 30 0 40 C -40 30 -40 -30 0 -40 Z"
      aria-label="SVG path data"
    />
    <template #footer>
      <button class="plain" @click="open = false">Cancel</button>
      <button class="primary" :disabled="!data.trim()" @click="done">Use this outline</button>
    </template>
  </ElDialog>
</template>

<style scoped>
p {
  margin: 0 0 10px;
  color: var(--ink-2);
}
</style>
