<script setup lang="ts">
/** Choose what an object is attached to. */
import { ElDialog, ElOption, ElSelect } from "element-plus";
import { computed, ref, watch } from "vue";
import { useSeveral } from "@/composables/several/useSeveral";
import { useTroupe } from "@/composables/troupe/useTroupe";
import { withParts } from "@/picture/boxes";
import { useScene } from "@/stores/scene";
import { useSelection } from "@/stores/selection";

const id = defineModel<string | null>({ required: true });
const scene = useScene();
const selection = useSelection();
const troupe = useTroupe();
const several = useSeveral();
const NOTHING = "";
const parent = ref(NOTHING);
const thing = computed(() => (id.value ? scene.byId.get(id.value) : undefined));
/** All that are picked together, where it is one of them. */
const all = computed(() => {
  if (!id.value) return [];
  return selection.several && selection.picked.includes(id.value) ? selection.picked : [id.value];
});
const whose = computed(() => (all.value.length > 1 ? `these ${all.value.length} objects` : (thing.value?.name ?? "")));
const choices = computed(() => {
  const own = new Set(all.value.flatMap((one) => withParts(one, scene.parts)));
  return scene.objects.filter((one) => !own.has(one.id));
});
watch(thing, (now) => (parent.value = now?.parent ?? NOTHING), { immediate: true });

function done(): void {
  if (all.value.length > 1) void several.hangOn(parent.value || null);
  else if (id.value && (parent.value || null) !== (thing.value?.parent ?? null))
    void troupe.hangOn(id.value, parent.value || null);
  id.value = null;
}
</script>

<template>
  <ElDialog
    :model-value="id !== null"
    :title="`What ${all.length > 1 ? 'do' : 'does'} ${whose} hang on?`"
    width="400"
    append-to-body
    @close="id = null"
  >
    <p>It then moves, rotates, scales and fades with its parent. Its look at this frame stays the same.</p>
    <ElSelect v-model="parent" filterable aria-label="Parent" style="width: 100%">
      <ElOption :value="NOTHING" label="None (not linked)" />
      <ElOption v-for="one in choices" :key="one.id" :value="one.id" :label="one.name" />
    </ElSelect>
    <template #footer>
      <button class="plain" @click="id = null">Cancel</button>
      <button class="primary" @click="done">Hang it there</button>
    </template>
  </ElDialog>
</template>

<style scoped>
p {
  margin: 0 0 10px;
  color: var(--ink-2);
}
</style>
