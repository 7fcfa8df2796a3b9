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
    <p>These take their motion from it:</p>
    <ul>
      <li v-for="one in readers" :key="one">{{ one }}</li>
    </ul>
    <p>
      Freeze them, and they keep moving as they do now, by keys of their own. Or leave them: then the value of the card
      before stays.
    </p>
    <template #footer>
      <button class="plain" @click="deleting.letBe()">Cancel</button>
      <button class="plain" @click="deleting.leaveThem()">Delete and leave them</button>
      <button class="primary" @click="deleting.freezeThem()">Freeze them, then delete</button>
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
