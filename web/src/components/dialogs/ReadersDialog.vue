<script setup lang="ts">
/** Before something is deleted that others read: who they are, and what shall become of their motion. */
import { ElDialog } from "element-plus";
import { computed } from "vue";
import { useNames } from "@/composables/useNames";
import { useDeleting } from "@/stores/deleting";

const deleting = useDeleting();
const names = useNames();
const readers = computed(() => [...new Set((deleting.asked?.readers ?? []).map((one) => names.drivenWords(one)))]);
</script>

<template>
  <ElDialog
    :model-value="deleting.asked !== null"
    :title="`${deleting.asked?.thing.name ?? ''} is read by others`"
    width="460"
    append-to-body
    @close="deleting.letBe()"
  >
    <p>These channels read it:</p>
    <ul>
      <li v-for="one in readers" :key="one">{{ one }}</li>
    </ul>
    <p>Freeze them to keep their current motion as keys. Or leave them: they keep the value of the previous card.</p>
    <template #footer>
      <button class="plain" @click="deleting.letBe()">Cancel</button>
      <button class="plain" @click="deleting.leaveThem()">Delete without freezing</button>
      <button class="primary" @click="deleting.freezeThem()">Freeze, then delete</button>
    </template>
  </ElDialog>
</template>

<style scoped>
p {
  margin: 0 0 8px;
  color: var(--ink-2);
}
ul {
  margin: 0 0 10px;
  padding-left: 18px;
  max-height: 180px;
  overflow-y: auto;
}
</style>
