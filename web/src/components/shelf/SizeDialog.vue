<script setup lang="ts">
/** What a scene accepts the data file, and forgetting its old steps of undo. */
import { ElDialog } from "element-plus";
import { computed, shallowRef, watch } from "vue";
import { api } from "@/api/client";
import type { SizeWords, Summary } from "@/api/types";
import SureButton from "@/components/common/SureButton.vue";
import { bytesText } from "@/geometry/amounts";
import { useMessages } from "@/stores/messages";

const props = defineProps<{ scene: Summary | null }>();
const emit = defineEmits<{ close: [] }>();
/** How many steps are kept. */
const KEPT = 20;
const messages = useMessages();
const size = shallowRef<SizeWords | null>(null);
const lines = computed(() =>
  size.value
    ? [
        { what: "The scene itself", bytes: size.value.scene },
        { what: "Its pictures, sounds and fonts", bytes: size.value.files },
        { what: "Its rehearsals", bytes: size.value.rehearsals },
        {
          what: `Its history: ${size.value.steps} ${size.value.steps === 1 ? "step" : "steps"} to undo or redo`,
          bytes: size.value.history,
        },
      ]
    : [],
);
const all = computed(() => lines.value.reduce((sum, line) => sum + line.bytes, 0));

watch(
  () => props.scene?.id,
  async (id) => {
    size.value = null;
    if (id) size.value = await messages.attempt(() => api.sceneSize(id));
  },
);

async function forget(): Promise<void> {
  if (!props.scene) return;
  const [id, before] = [props.scene.id, all.value];
  size.value = (await messages.attempt(() => api.forgetHistory(id, KEPT))) ?? size.value;
  messages.info(`${bytesText(Math.max(0, before - all.value))} freed.`);
}
</script>

<template>
  <ElDialog
    :model-value="scene !== null"
    :title="`Size and history of ${scene?.name ?? ''}`"
    width="460"
    append-to-body
    @close="emit('close')"
  >
    <p v-if="!size">Counting…</p>
    <template v-else>
      <table>
        <tbody>
          <tr v-for="line in lines" :key="line.what">
            <th scope="row">{{ line.what }}</th>
            <td>{{ bytesText(line.bytes) }}</td>
          </tr>
        </tbody>
        <tfoot>
          <tr>
            <th scope="row">Together</th>
            <td>{{ bytesText(all) }}</td>
          </tr>
        </tfoot>
      </table>
      <template v-if="size.steps > KEPT">
        <p>
          Everything ever done to a scene can be undone, packed small. If you do not need that any more, forget all but
          the last {{ KEPT }} steps. The scene stays as it is; this cannot be undone.
        </p>
        <SureButton
          asks="Forget old history…"
          :confirms="`Yes, forget ${size.steps - KEPT} steps for good`"
          @sure="forget"
        />
      </template>
      <p v-else>There is no old history to forget: the last {{ KEPT }} steps are always kept.</p>
    </template>
  </ElDialog>
</template>

<style scoped>
table {
  width: 100%;
  border-collapse: collapse;
}
th,
td {
  padding: 5px 0;
  border-bottom: 1px solid var(--line);
  font-weight: 400;
  text-align: left;
  color: var(--ink);
}
td {
  text-align: right;
  font-family: var(--mono);
}
tfoot th,
tfoot td {
  border: 0;
  font-weight: 700;
}
p {
  margin: 12px 0 8px;
  color: var(--ink-2);
}
</style>
