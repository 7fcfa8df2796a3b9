<script setup lang="ts">
/** While a variant is tried: compare it with what it was built from, and choose. */
import { useRehearsals } from "@/stores/rehearsals";

const rehearsals = useRehearsals();
</script>

<template>
  <div v-if="rehearsals.variantOf" class="variant" role="group" :aria-label="`Variant of ${rehearsals.variantOf.name}`">
    <span class="says" :title="`This is a variant of ${rehearsals.variantOf.name}`"
      >from {{ rehearsals.variantOf.name }}</span
    >
    <button
      class="chip small"
      @click="rehearsals.compare({ kind: 'kept', id: rehearsals.variantOf.id, name: rehearsals.variantOf.name })"
    >
      compare
    </button>
    <button
      class="chip small"
      :title="`Go on with the variant; ${rehearsals.variantOf.name} stays among the rehearsals`"
      @click="rehearsals.endVariant()"
    >
      take it
    </button>
    <button
      class="chip small"
      :title="`Make the scene ${rehearsals.variantOf.name} again; undo takes that back`"
      @click="rehearsals.leaveVariant()"
    >
      go back
    </button>
  </div>
</template>

<style scoped>
.variant {
  display: flex;
  align-items: center;
  gap: 5px;
  min-width: 0;
  padding-left: 8px;
  border-left: 3px solid #c1531b;
}
.says {
  font-size: 12px;
  color: var(--ink-2);
  white-space: nowrap;
  overflow: hidden;
  text-overflow: ellipsis;
  min-width: 0;
}
.chip {
  flex: none;
}
</style>
