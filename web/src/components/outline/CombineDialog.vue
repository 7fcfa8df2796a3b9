<script setup lang="ts">
/** Make one outline of several objects: which, and how. It is looked at in the picture before it is made. */
import { ElCheckbox, ElDialog } from "element-plus";
import { computed, ref, watch } from "vue";
import type { Edit, SceneObject } from "@/api/types";
import { usePlayback } from "@/stores/playback";
import { useScene } from "@/stores/scene";

const props = defineProps<{ thing: SceneObject; others: readonly SceneObject[] }>();
const open = defineModel<boolean>({ required: true });
const scene = useScene();
const playback = usePlayback();

const WAYS = [
  { how: "unite", label: "Unite", about: "All of them as one", d: "M8 6h10v10h-4v4H4V10h4Z" },
  { how: "cut-out", label: "Cut out", about: "The first without the others", d: "M4 10h4V6h10v10h-4v4H4Z" },
  { how: "overlap", label: "Overlap", about: "Only what all of them share", d: "M8 10h6v6H8Z" },
  {
    how: "exclude",
    label: "Exclude",
    about: "Without what two of them share",
    d: "M8 6h10v10h-4v-6H8ZM4 10h4v6h6v4H4Z",
  },
] as const;
const how = ref<(typeof WAYS)[number]["how"]>("unite");
const chosen = ref<ReadonlySet<string>>(new Set());
watch(open, (now) => now && (chosen.value = new Set()), { immediate: true });

function choose(id: string, on: boolean): void {
  const next = new Set(chosen.value);
  if (on) next.add(id);
  else next.delete(id);
  chosen.value = next;
}
const edits = computed((): Edit[] =>
  chosen.value.size
    ? [
        {
          edit: "combine-outlines",
          objects: [props.thing.id, ...chosen.value],
          how: how.value,
          frame: playback.frame,
        },
      ]
    : [],
);
watch([edits, open], ([list, shown]) => {
  if (!shown || !list.length) scene.letGo();
  else void scene.lookAt(list);
});

async function make(): Promise<void> {
  const list = edits.value;
  open.value = false;
  if (list.length) await scene.edit(list);
}
</script>

<template>
  <ElDialog v-model="open" :title="`Combine ${thing.name} with others`" width="420" append-to-body :modal="false">
    <div class="ways" role="radiogroup" aria-label="Combination">
      <button
        v-for="way in WAYS"
        :key="way.how"
        role="radio"
        :aria-checked="how === way.how"
        :class="{ on: how === way.how }"
        :title="way.about"
        @click="how = way.how"
      >
        <svg viewBox="0 0 22 24" width="34" height="36" aria-hidden="true">
          <path class="bare" d="M4 10h10v10H4ZM8 6h10v10H8Z" />
          <path class="kept" :d="way.d" />
        </svg>
        <strong>{{ way.label }}</strong>
        <span>{{ way.about }}</span>
      </button>
    </div>
    <p>{{ thing.name }} keeps its name, colours and place; these become part of it:</p>
    <div class="others">
      <ElCheckbox
        v-for="one in others"
        :key="one.id"
        :model-value="chosen.has(one.id)"
        :label="one.name"
        @change="choose(one.id, Boolean($event))"
      />
    </div>
    <template #footer>
      <button class="plain" @click="open = false">Cancel</button>
      <button class="primary" :disabled="!chosen.size" @click="make">Combine</button>
    </template>
  </ElDialog>
</template>

<style scoped>
.ways {
  display: grid;
  grid-template-columns: repeat(4, 1fr);
  gap: 6px;
}
.ways button {
  border: 1px solid var(--line);
  border-radius: 12px;
  background: var(--paper);
  padding: 6px 4px;
  display: grid;
  justify-items: center;
  align-content: start;
  gap: 2px;
  cursor: pointer;
  font-size: 12px;
}
.ways span {
  font-size: 11px;
  color: var(--ink-2);
  text-align: center;
}
.ways .on {
  border-color: var(--travel);
  background: var(--travel-pale);
}
.bare {
  fill: none;
  stroke: #b9ad93;
  stroke-dasharray: 2 1.5;
}
.kept {
  fill: var(--size-fill);
  stroke: var(--ink);
}
.others {
  display: grid;
  max-height: 180px;
  overflow-y: auto;
}
p {
  margin: 10px 0 4px;
}
</style>
