<script setup lang="ts">
/** The guide to notes: every kind, with the fault and its mend side by side. */
import { onMounted, ref } from "vue";
import { RouterLink } from "vue-router";
import { api, ServiceError } from "@/api/client";
import type { NoteKindWords } from "@/api/types";
import FindField from "@/components/common/FindField.vue";
import NoteKindCard from "@/components/notes/NoteKindCard.vue";
import { narrowed } from "@/geometry/finding";
import { useSaid } from "@/stores/said";

const said = useSaid();
const all = ref<readonly NoteKindWords[]>([]);
const typed = ref("");
onMounted(async () => {
  try {
    all.value = await api.noteKinds();
  } catch (error) {
    if (!(error instanceof ServiceError)) throw error;
    said.error(error.message);
  }
});
const shown = (): readonly NoteKindWords[] =>
  narrowed(
    all.value.map((one) => ({ ...one, about: one.why })),
    typed.value,
  );
</script>

<template>
  <main class="page">
    <header>
      <RouterLink to="/" class="back" title="Back to the Shelf"
        ><img src="/icon.svg" alt="Shelf" width="34" height="34"
      /></RouterLink>
      <div>
        <h1>Notes</h1>
        <p>
          What a second pair of eyes would remark on a scene, why, and when it is meant. Left the fault, right its mend.
        </p>
      </div>
      <FindField v-model="typed" label="Find a kind of note" />
      <RouterLink to="/" class="plain">Shelf</RouterLink>
    </header>
    <div class="grid">
      <NoteKindCard v-for="kind in shown()" :key="kind.name" :kind="kind" />
    </div>
  </main>
</template>

<style scoped>
.page {
  min-height: 100%;
  background: var(--paper-2);
  padding: 28px 40px 60px;
}
header {
  display: flex;
  align-items: center;
  gap: 12px;
  margin: 0 auto 24px;
  max-width: 1160px;
}
header div {
  flex: 1;
}
h1 {
  font-size: 22px;
  color: var(--travel);
  line-height: 1.1;
}
header p {
  margin: 2px 0 0;
  color: var(--ink-2);
}
.grid {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(440px, 1fr));
  gap: 22px;
  margin: 0 auto;
  max-width: 1160px;
}
.plain {
  text-decoration: none;
  color: inherit;
}
</style>
