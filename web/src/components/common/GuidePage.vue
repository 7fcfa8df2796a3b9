<script setup lang="ts">
/**
 * A page that explains: a heading with a sentence, and cards below; what else belongs into its head comes by the slot
 * `head`.
 */
import GuideHead from "@/components/common/GuideHead.vue";

defineProps<{ heading: string; says: string; /** The least width of a card, px. */ card: number }>();
</script>

<template>
  <main class="page">
    <GuideHead :heading="heading" :says="says"><slot name="head" /></GuideHead>
    <div class="grid" :style="{ '--card': `${card}px` }"><slot /></div>
  </main>
</template>

<style scoped>
.page {
  min-height: 100%;
  background: var(--paper-2);
  padding: 28px 40px 60px;
}
.grid {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(var(--card), 1fr));
  gap: 22px;
  margin: 0 auto;
  max-width: 1160px;
}
</style>
