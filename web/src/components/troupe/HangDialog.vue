<script setup lang="ts">
/** Choose what an object hangs on. */
import { ElDialog, ElOption, ElSelect } from "element-plus";
import { computed, ref, watch } from "vue";
import { useTroupe } from "@/composables/useTroupe";
import { withParts } from "@/picture/boxes";
import { useScene } from "@/stores/scene";

const id = defineModel<string | null>({ required: true });
const scene = useScene();
const troupe = useTroupe();
const NOTHING = "";
const parent = ref(NOTHING);
const thing = computed(() => (id.value ? scene.byId.get(id.value) : undefined));
const choices = computed(() => {
  const own = new Set(id.value ? withParts(id.value, scene.parts) : []);
  return scene.objects.filter((one) => !own.has(one.id));
});
watch(thing, (now) => (parent.value = now?.parent ?? NOTHING), { immediate: true });

function done(): void {
  if (id.value && (parent.value || null) !== (thing.value?.parent ?? null))
    void troupe.hangOn(id.value, parent.value || null);
  id.value = null;
}
</script>

<template>
  <ElDialog
    :model-value="id !== null"
    :title="`What does ${thing?.name ?? ''} hang on?`"
    width="400"
    append-to-body
    @close="id = null"
  >
    <p>It then moves, turns, grows and fades with it. At this frame it stays as it looks now.</p>
    <ElSelect v-model="parent" filterable aria-label="Parent" style="width: 100%">
      <ElOption :value="NOTHING" label="Nothing: it moves by itself" />
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
