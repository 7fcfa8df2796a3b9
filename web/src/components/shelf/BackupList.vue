<script setup lang="ts">
/** Backups of all scenes, made by the day: one is brought back after a second press, and that can be taken back. */
import { onMounted, shallowRef } from "vue";
import { api } from "@/api/client";
import type { BackupWords } from "@/api/types";
import SureButton from "@/components/common/SureButton.vue";
import { bytesText } from "@/geometry/amounts";
import { useMessages } from "@/stores/messages";

const emit = defineEmits<{ brought: []; known: [count: number] }>();
const messages = useMessages();
const copies = shallowRef<readonly BackupWords[]>([]);
const WHY = {
  day: "before the first change of that day",
  schema: "before a newer Vine Swing changed the file",
  before: "before another copy was brought back",
};
const when = (one: BackupWords): string =>
  new Date(one.made).toLocaleString(undefined, { dateStyle: "medium", timeStyle: "short" });

function take(found: readonly BackupWords[] | null): void {
  copies.value = found ?? [];
  emit("known", copies.value.length);
}
async function bringBack(one: BackupWords): Promise<void> {
  const found = await messages.attempt(() => api.bringBackup(one.name));
  if (!found) return;
  take(found);
  emit("brought");
  const now = found.find((other) => other.why === "before");
  messages.withUndo(`All scenes are as they were on ${when(one)}.`, "Undo", async () => {
    if (now) take(await messages.attempt(() => api.bringBackup(now.name)));
    emit("brought");
  });
}
onMounted(async () => take(await messages.attempt(api.backups)));
</script>

<template>
  <ul v-if="copies.length" aria-label="Backups of all scenes">
    <li v-for="one in copies" :key="one.name">
      <span
        ><strong>{{ when(one) }}</strong> · {{ WHY[one.why] }} · {{ bytesText(one.size) }}</span
      >
      <SureButton
        asks="Bring back…"
        confirms="Yes, all scenes as they were then"
        title="Restores every scene from that day. The current state is backed up first."
        @sure="bringBack(one)"
      />
    </li>
  </ul>
</template>

<style scoped>
ul {
  list-style: none;
  margin: 0;
  padding: 0;
  display: grid;
  gap: 6px;
}
li {
  display: flex;
  flex-wrap: wrap;
  gap: 6px 12px;
  align-items: center;
}
.plain {
  padding: 3px 12px;
}
</style>
