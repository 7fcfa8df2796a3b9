<script setup lang="ts">
/** The tools at the left of the picture: they decide what a press does. */
import { useElementSize } from "@vueuse/core";
import { computed, ref } from "vue";
import { isFigure } from "@/api/kinds";
import AddMenu from "@/components/troupe/AddMenu.vue";
import VineIcon from "@/components/common/VineIcon.vue";
import { useSelection } from "@/stores/selection";

const selection = useSelection();

/** By the names of the tools, which are those of their icons. */
const TOOLS = [
  { name: "pick", label: "Pick and move", about: "Pick, move, turn and size (V)" },
  { name: "pivot", label: "Move the pivot", about: "Move the pivot; the picture stays (P)" },
  { name: "path", label: "Draw and bend paths", about: "Draw and bend paths (W)" },
  { name: "draw", label: "Draw outlines", about: "Draw outlines: by points or freely (B)" },
  { name: "points", label: "Edit points", about: "Edit points: move, bend, add, remove (E)" },
  { name: "link", label: "Link by hand", about: "Link: drag from the driver to the driven object (D)" },
  { name: "joints", label: "Shape the joints", about: "Joints: drag them where they rest (J)" },
] as const;
/** Only figures have joints. */
const offered = computed(() =>
  TOOLS.filter(({ name }) => name !== "joints" || isFigure(selection.thing) || selection.tool === "joints"),
);

/** How large a button is at most and at least in a column of its own, and the room between two, px. */
const [LARGE, SMALL, GAP] = [34, 24, 7];
const bar = ref<HTMLElement>();
const { height } = useElementSize(bar);
/** With little height the buttons become smaller, then are in two columns, so that none is cut off. */
const grid = computed(() => {
  const count = offered.value.length + 1;
  // Before it is measured there is room.
  const sizeIn = (rows: number): number => ((height.value || Infinity) + GAP) / rows - GAP;
  const fits = sizeIn(count) >= SMALL;
  const rows = fits ? count : Math.ceil(count / 2);
  const size = Math.min(fits ? LARGE : SMALL, sizeIn(rows));
  return { gridTemplateRows: `repeat(${rows}, ${size}px)`, gridAutoColumns: `${size}px`, gap: `${GAP}px` };
});
</script>

<template>
  <div ref="bar" class="tools" :style="grid" role="toolbar" aria-label="Tools" aria-orientation="vertical">
    <button
      v-for="tool in offered"
      :key="tool.name"
      :class="{ on: selection.tool === tool.name }"
      :aria-pressed="selection.tool === tool.name"
      :title="tool.about"
      :aria-label="tool.label"
      @click="selection.tool = tool.name"
    >
      <VineIcon :name="tool.name" :solid="tool.name === 'pick'" />
    </button>
    <AddMenu placement="right-start"
      ><button title="Put something new into the picture (N)" aria-label="Add to the picture">
        <VineIcon name="add" /></button
    ></AddMenu>
  </div>
</template>

<style scoped>
.tools {
  position: absolute;
  left: 12px;
  top: calc(var(--guide, 0px) + 14px);
  bottom: calc(var(--chips, 0px) + 6px);
  display: grid;
  grid-auto-flow: column;
  pointer-events: none;
}
button {
  pointer-events: auto;
  height: 100%;
  aspect-ratio: 1;
  padding: 0;
  border: 1px solid var(--line);
  border-radius: 50%;
  background: var(--paper);
  display: grid;
  place-items: center;
  cursor: pointer;
}
.on {
  background: var(--travel);
  color: var(--paper);
  border-color: var(--travel);
}
</style>
