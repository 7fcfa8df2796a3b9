<script setup lang="ts">
/** The guide to notes: every kind, with the fault and its mend side by side. */
import { onMounted, ref } from "vue";
import { api, ServiceError } from "@/api/client";
import type { NoteKindWords } from "@/api/types";
import FindField from "@/components/common/FindField.vue";
import GuidePage from "@/components/common/GuidePage.vue";
import NoteKindCard from "@/components/notes/NoteKindCard.vue";
import { narrowed } from "@/geometry/finding";
import { useMessages } from "@/stores/messages";

const messages = useMessages();
const all = ref<readonly NoteKindWords[]>([]);
const typed = ref("");
onMounted(async () => {
  try {
    all.value = await api.noteKinds();
  } catch (error) {
    if (!(error instanceof ServiceError)) throw error;
    messages.error(error.message);
  }
});
const shown = (): readonly NoteKindWords[] =>
  narrowed(
    all.value.map((one) => ({ ...one, about: one.why })),
    typed.value,
  );
</script>

<template>
  <GuidePage
    heading="Notes"
    says="Comments that a second animator would make on a scene, with the reason. Left: the fault. Right: the fix."
    :card="440"
  >
    <template #head><FindField v-model="typed" label="Find a kind of note" /></template>
    <NoteKindCard v-for="kind in shown()" :key="kind.name" :kind="kind" />
  </GuidePage>
</template>
