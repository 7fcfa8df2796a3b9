<script setup lang="ts">
/** The name of a lane: a click picks what it is of, the arrow before it opens the rows below it. */
import { computed } from "vue";
import { isDial } from "@/api/kinds";
import VineIcon from "@/components/common/VineIcon.vue";
import type { Lane } from "@/composables/sheet/useLaneMaking";
import { keysAt, usePicks } from "@/stores/picks";
import { useSelection } from "@/stores/selection";

const props = defineProps<{ lane: Lane; opened: boolean; chosen: boolean }>();
const emit = defineEmits<{ open: [] }>();
const selection = useSelection();
const picks = usePicks();

const limbOpen = computed(() => props.lane.part !== null && selection.isLimbOpen(props.lane.thing.id, props.lane.part));
const tag = computed(() => (isDial(props.lane.thing) || props.lane.row ? null : props.lane.thing.tag));
const dial = computed(() => isDial(props.lane.thing));

/** With Shift or Ctrl the object is picked together with the others. */
function pick(event: MouseEvent): void {
  if (event.shiftKey || event.ctrlKey || event.metaKey) return selection.toggle(props.lane.thing.id);
  selection.pick(props.lane.thing.id, true);
  if (props.lane.part) selection.foldLimb(props.lane.thing.id, props.lane.part);
  else if (props.lane.row) selection.pickRow(props.lane.row.name, null, true);
}

/** Pick every key of the lane. */
const pickKeys = (): void => picks.set(keysAt(props.lane.thing, props.lane.channels, null));
</script>

<template>
  <div
    class="name"
    :class="{ sub: lane.row && !dial, chosen: chosen && !lane.row }"
    :style="{ paddingLeft: `${dial ? 24 : (lane.part ? 20 : lane.row ? 34 : 6) + lane.depth * 14}px` }"
    :title="`${lane.row?.name ?? lane.thing.name}: double click picks all its leaves`"
    @click="pick"
    @dblclick="pickKeys"
  >
    <button
      v-if="!lane.row"
      class="fold"
      :disabled="!lane.channels.length"
      :aria-expanded="opened"
      :aria-label="`${opened ? 'Close' : 'Open'} the rows of ${lane.thing.name}`"
      @click.stop="emit('open')"
    >
      <VineIcon name="after" :class="{ turned: opened || selection.objectId === lane.thing.id }" />
    </button>
    <button
      v-if="lane.part"
      class="fold"
      :aria-expanded="limbOpen"
      :aria-label="`${limbOpen ? 'Close' : 'Open'} the rows of ${lane.part} of ${lane.thing.name}`"
      @click.stop="selection.foldLimb(lane.thing.id, lane.part)"
    >
      <VineIcon name="after" :class="{ turned: limbOpen }" />
    </button>
    <span v-if="tag" class="mark" :style="{ background: tag }" />
    <span class="text" dir="auto"
      >{{ dial ? lane.thing.name : (lane.part ?? lane.row?.name ?? lane.thing.name) }}
      <small v-if="dial">dial</small></span
    >
  </div>
</template>

<style scoped>
.name {
  width: var(--names);
  flex: none;
  display: flex;
  align-items: center;
  gap: 2px;
  padding-left: 6px;
  cursor: pointer;
  overflow: hidden;
  user-select: none;
}
.mark {
  flex: none;
  width: 4px;
  height: 14px;
  border-radius: 2px;
  margin-right: 4px;
}
.name.sub {
  color: var(--ink-2);
}
.text {
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.text small {
  color: var(--ink-2);
  font-size: 11px;
  margin-left: 3px;
}
.chosen .text {
  font-weight: 600;
}
.fold {
  border: 0;
  background: none;
  padding: 0;
  display: grid;
  cursor: pointer;
  color: var(--ink-2);
}
.fold:disabled {
  visibility: hidden;
}
.fold .icon {
  width: 16px;
  height: 16px;
}
.turned {
  transform: rotate(90deg);
}
</style>
