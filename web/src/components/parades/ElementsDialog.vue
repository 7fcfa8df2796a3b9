<script setup lang="ts">
/** Ready elements to put into the picture: each moves while it can be seen. */
import { ElDialog } from "element-plus";
import { computed, ref, shallowRef, watch } from "vue";
import { api } from "@/api/client";
import type { ElementWords } from "@/api/types";
import FindField from "@/components/common/FindField.vue";
import ElementCard from "@/components/parades/ElementCard.vue";
import { useElements } from "@/composables/useElements";
import { narrowed } from "@/geometry/finding";

const open = defineModel<boolean>({ required: true });
const elements = shallowRef<readonly ElementWords[]>([]);
const typed = ref("");
const shown = computed(() => narrowed(elements.value, typed.value));
watch(open, () => (typed.value = ""));
const adding = ref<string | null>(null);
const { putIn } = useElements();
void api.elements().then((all) => (elements.value = all));

async function add(element: ElementWords): Promise<void> {
  adding.value = element.name;
  const done = await putIn(element);
  adding.value = null;
  if (done) open.value = false;
}
</script>

<template>
  <ElDialog v-model="open" title="Ready elements" width="760" append-to-body>
    <div class="line">
      <p>Each element consists of plain objects with keys and rules: change any of them, or turn it into a parade.</p>
      <FindField v-model="typed" label="Find an element" @take="shown[0] && add(shown[0])" />
    </div>
    <p v-if="elements.length && !shown.length">No matches. Try fewer letters.</p>
    <div class="cards">
      <ElementCard
        v-for="element in shown"
        :key="element.name"
        :element="element"
        :disabled="adding !== null"
        @add="add(element)"
      />
    </div>
  </ElDialog>
</template>

<style scoped>
.line {
  display: flex;
  justify-content: space-between;
  align-items: start;
  gap: 12px;
}
p {
  margin: 0 0 10px;
  color: var(--ink-2);
}
.cards {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(165px, 1fr));
  gap: 10px;
  max-height: 62vh;
  overflow-y: auto;
  padding: 2px;
}
</style>
