<script setup lang="ts">
/** The line of a figure's limb, under which its values are folded: how many of them have keys. */
import { computed } from "vue";
import { keysOf } from "@/api/channels";
import VineIcon from "@/components/common/VineIcon.vue";
import { useSelection } from "@/stores/selection";
import type { Row } from "@/stores/vocabulary";

const props = defineProps<{ id: string; part: string; rows: readonly Row[] }>();
const selection = useSelection();
const open = computed(() => selection.isLimbOpen(props.id, props.part));
const keyed = computed(() => {
  const thing = selection.thing;
  return thing
    ? props.rows.filter((row) => row.channels.some((channel) => keysOf(thing, channel.name).length)).length
    : 0;
});
</script>

<template>
  <button class="limb" :aria-expanded="open" @click="selection.foldLimb(id, part)">
    <VineIcon name="after" :class="{ turned: open }" />
    <span>{{ part }}</span>
    <small>{{ keyed ? `${keyed} of ${rows.length} keyed` : `${rows.length} values` }}</small>
  </button>
</template>

<style scoped>
.limb {
  display: flex;
  align-items: center;
  gap: 6px;
  width: 100%;
  min-height: 30px;
  padding: 2px 14px 2px 8px;
  border: 0;
  background: none;
  color: var(--ink);
  font: 600 13px var(--text);
  text-align: left;
  cursor: pointer;
}
.limb:hover {
  background: var(--paper-2);
}
.limb span {
  flex: 1;
}
.limb .icon {
  width: 15px;
  height: 15px;
  transition: transform 0.12s;
}
.turned {
  transform: rotate(90deg);
}
small {
  font-weight: 400;
  color: var(--ink-2);
}
</style>
