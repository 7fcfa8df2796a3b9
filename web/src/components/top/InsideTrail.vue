<script setup lang="ts">
/** The scenes around the current one: a click goes back out. */
import { useInside } from "@/stores/inside";

const inside = useInside();
</script>

<template>
  <nav v-if="inside.trail.length" class="trail" aria-label="Scenes around this one">
    <template v-for="(crumb, i) in inside.trail" :key="`${crumb.from} ${i}`">
      <button
        class="quiet crumb"
        :title="`Go back out to ${crumb.name}${i === inside.trail.length - 1 ? ' (H with Shift)' : ''}`"
        @click="inside.leave(i)"
      >
        {{ crumb.name }}
      </button>
      <span class="into" aria-hidden="true">›</span>
    </template>
  </nav>
</template>

<style scoped>
.trail {
  display: flex;
  align-items: center;
  min-width: 0;
  flex: 0 1 auto;
}
.crumb {
  max-width: 130px;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
  color: var(--travel);
  padding-inline: 4px;
}
.into {
  color: var(--ink-2);
}
</style>
