<script setup lang="ts">
/** The classic twelve, each alive, with what our rules do for it and when to leave it. */
import { onMounted, ref } from "vue";
import { RouterLink, useRouter } from "vue-router";
import { api, ServiceError } from "@/api/client";
import type { PrincipleWords } from "@/api/types";
import PrincipleCard from "@/components/principles/PrincipleCard.vue";
import { useSaid } from "@/stores/said";

const router = useRouter();
const said = useSaid();
const all = ref<readonly PrincipleWords[]>([]);
const opening = ref<string | null>(null);

async function attempt<T>(work: () => Promise<T>): Promise<T | null> {
  try {
    return await work();
  } catch (error) {
    if (!(error instanceof ServiceError)) throw error;
    said.error(error.message);
    return null;
  }
}

onMounted(async () => {
  all.value = (await attempt(api.principles)) ?? [];
});

/** A scene of one's own from a principle's: change anything, the page keeps its own. */
async function open(principle: PrincipleWords): Promise<void> {
  opening.value = principle.name;
  const made = await attempt(async () => api.openFile(await api.principleFile(principle.name)));
  opening.value = null;
  if (made) await router.push(`/scenes/${made.id}`);
}
</script>

<template>
  <main class="page">
    <header>
      <RouterLink to="/" class="back" title="Back to the Shelf"
        ><img src="/icon.svg" alt="Shelf" width="34" height="34"
      /></RouterLink>
      <div>
        <h1>Principles</h1>
        <p>
          What animators have long known, and the rules that do it. Where there are two, the left one has plain keys.
        </p>
      </div>
      <RouterLink to="/" class="plain">Shelf</RouterLink>
    </header>
    <div class="grid">
      <PrincipleCard
        v-for="(principle, i) in all"
        :key="principle.name"
        :principle="principle"
        :place="i + 1"
        :opening="opening === principle.name"
        @open="open(principle)"
      />
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
  grid-template-columns: repeat(auto-fill, minmax(320px, 1fr));
  gap: 22px;
  margin: 0 auto;
  max-width: 1160px;
}
.plain {
  text-decoration: none;
  color: inherit;
}
</style>
