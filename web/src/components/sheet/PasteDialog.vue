<script setup lang="ts">
/**
 * Asks how copied keys are pasted: onto which objects, each how much later, replacing or merging, exact or from its
 * own start.
 */
import { ElDialog } from "element-plus";
import { computed, ref, watch } from "vue";
import NumberField from "@/components/common/NumberField.vue";
import { useLeafActions } from "@/composables/keys/useLeafActions";
import { usePlayback } from "@/stores/playback";
import { useScene } from "@/stores/scene";
import { useSelection } from "@/stores/selection";

const scene = useScene();
const selection = useSelection();
const playback = usePlayback();
const leaf = useLeafActions();
const onto = ref<string[]>([]);
const replace = ref(false);
const place = ref<"exact" | "own start">("exact");
const delay = ref(0);

const edits = computed(() =>
  leaf.pasteEdits({
    replace: replace.value,
    place: place.value,
    delay: delay.value,
    onto: scene.objects.filter((one) => onto.value.includes(one.id)).map((one) => one.id),
  }),
);
watch(leaf.pasting, (open) => open && (onto.value = selection.objectId ? [selection.objectId] : []));
watch([leaf.pasting, edits], ([open, list]) => {
  if (open && list.length) void scene.lookAt(list);
  else if (open) scene.letGo();
});

async function done(): Promise<void> {
  const list = edits.value;
  leaf.pasting.value = false;
  await scene.edit(list);
}

function leave(): void {
  if (!leaf.pasting.value) return;
  leaf.pasting.value = false;
  scene.letGo();
}
</script>

<template>
  <ElDialog
    :model-value="leaf.pasting.value"
    title="Paste keys"
    width="430"
    modal-class="see-through"
    top="8vh"
    @close="leave"
  >
    <p v-if="leaf.copied.value">
      {{ leaf.copied.value.count }} keys of {{ leaf.copied.value.from }}, the first at frame {{ playback.frame }}. The
      picture shows it.
    </p>
    <div class="onto" role="group" aria-label="Target objects">
      <label v-for="thing in scene.objects" :key="thing.id"
        ><input v-model="onto" type="checkbox" :value="thing.id" /> {{ thing.name }}</label
      >
    </div>
    <div class="form">
      <span>Delay of each</span>
      <NumberField
        label="Delay from object to object"
        :value="delay"
        unit="frames"
        :digits="0"
        :low="0"
        :high="10000"
        @change="delay = Math.round($event)"
      />
      <span>Keys there already</span>
      <div class="pair" role="radiogroup" aria-label="Keys there already">
        <label><input v-model="replace" type="radio" name="replace" :value="false" /> stay too</label>
        <label><input v-model="replace" type="radio" name="replace" :value="true" /> are replaced</label>
      </div>
      <span>Numbers</span>
      <div class="pair" role="radiogroup" aria-label="Numbers">
        <label><input v-model="place" type="radio" name="place" value="exact" /> exactly these</label>
        <label><input v-model="place" type="radio" name="place" value="own start" /> from its own start</label>
      </div>
    </div>
    <template #footer>
      <button class="plain" @click="leave">Cancel</button>
      <button class="primary" :disabled="!edits.length" @click="done">Paste</button>
    </template>
  </ElDialog>
</template>

<style scoped>
p {
  margin: 0 0 8px;
  color: var(--ink-2);
}
.onto {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 2px 12px;
  max-height: 170px;
  overflow-y: auto;
  border: 1px solid var(--line);
  border-radius: var(--radius);
  padding: 8px 10px;
  margin-bottom: 10px;
}
.form {
  display: grid;
  grid-template-columns: 130px 1fr;
  gap: 8px;
  align-items: center;
}
.pair {
  display: flex;
  gap: 14px;
}
label {
  display: flex;
  gap: 6px;
  align-items: center;
  cursor: pointer;
}
.plain {
  margin-right: 8px;
}
</style>
