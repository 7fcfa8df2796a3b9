<script setup lang="ts">
/** A key as a leaf: full where there is a key, an outline where it is missing, pale where the key is elsewhere. */
defineProps<{ state: "here" | "elsewhere" | "none"; family: string }>();
</script>

<template>
  <svg class="leaf-mark" :class="[state, family]" viewBox="0 0 20 20" aria-hidden="true">
    <path class="blade" d="M3 17C2.500 8 8 3 17 3 17 12 12 17.500 3 17Z" />
    <path class="vein" d="M3 17 12 8" />
  </svg>
</template>

<style scoped>
.leaf-mark {
  width: 15px;
  height: 15px;
  display: block;
}
.blade {
  stroke-width: 1.6;
  stroke-linejoin: round;
}
.vein {
  fill: none;
  stroke-width: 1.4;
  stroke-linecap: round;
}
.travel {
  color: var(--travel);
}
.turn {
  color: var(--turn);
}
.size {
  color: var(--size-fill);
}
.look {
  color: var(--look);
}
.here .blade {
  fill: currentColor;
  stroke: currentColor;
}
.here .vein {
  stroke: var(--paper);
}
.elsewhere .blade {
  fill: color-mix(in srgb, currentColor 22%, var(--paper));
  stroke: currentColor;
}
.elsewhere .vein {
  stroke: currentColor;
}
.none .blade {
  fill: none;
  stroke: #b9ad93;
}
.none .vein {
  stroke: #b9ad93;
}
</style>
