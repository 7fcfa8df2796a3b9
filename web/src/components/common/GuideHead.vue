<script setup lang="ts">
/**
 * The head of a page that explains: the way back to the Shelf, a heading with a sentence, and what else belongs there.
 */
import { RouterLink } from "vue-router";

defineProps<{ heading: string; says: string }>();
</script>

<template>
  <header>
    <RouterLink to="/" class="back" title="Back to the Shelf"
      ><img src="/icon.svg" alt="Shelf" width="34" height="34"
    /></RouterLink>
    <div>
      <h1>{{ heading }}</h1>
      <p>{{ says }}</p>
    </div>
    <slot />
    <RouterLink to="/" class="plain">Shelf</RouterLink>
  </header>
</template>

<style scoped>
header {
  display: flex;
  align-items: center;
  gap: 12px;
  width: 100%;
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
.plain {
  text-decoration: none;
  color: inherit;
}
</style>
