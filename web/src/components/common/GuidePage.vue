<script setup lang="ts">
/** A page that explains: a heading with a sentence, and cards below; what else belongs into its head comes by the slot `head`. */
import { RouterLink } from "vue-router";

defineProps<{ heading: string; says: string; /** The least width of a card, px. */ card: number }>();
</script>

<template>
  <main class="page">
    <header>
      <RouterLink to="/" class="back" title="Back to the Shelf"
        ><img src="/icon.svg" alt="Shelf" width="34" height="34"
      /></RouterLink>
      <div>
        <h1>{{ heading }}</h1>
        <p>{{ says }}</p>
      </div>
      <slot name="head" />
      <RouterLink to="/" class="plain">Shelf</RouterLink>
    </header>
    <div class="grid" :style="{ '--card': `${card}px` }"><slot /></div>
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
  grid-template-columns: repeat(auto-fill, minmax(var(--card), 1fr));
  gap: 22px;
  margin: 0 auto;
  max-width: 1160px;
}
.plain {
  text-decoration: none;
  color: inherit;
}
</style>
