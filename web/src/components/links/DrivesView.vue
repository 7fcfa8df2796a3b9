<script setup lang="ts">
/** All links of the scene: drivers left, driven channels right. Equal ones share a row until it is opened. */
import { useElementSize } from "@vueuse/core";
import { computed, ref } from "vue";
import { isDial } from "@/api/dials";
import PaintedThumb from "@/components/common/PaintedThumb.vue";
import { useNames } from "@/composables/useNames";
import { layoutOf, type Node } from "@/geometry/drivesLayout";
import { withParts } from "@/picture/boxes";
import { useDrives } from "@/stores/drives";
import { useScene } from "@/stores/scene";
import { useSelection } from "@/stores/selection";
import { useVocabulary } from "@/stores/vocabulary";

const scene = useScene();
const selection = useSelection();
const vocabulary = useVocabulary();
const drives = useDrives();
const names = useNames();
const area = ref<HTMLElement>();
const { width, height } = useElementSize(area);
const opened = ref<ReadonlySet<string>>(new Set());
const [ROW, CARD] = [34, 168];

const edges = computed(() => {
  const found = new Map<string, { from: string; to: string; says: string[] }>();
  for (const one of drives.moving) {
    const [from, to] = [one.driver.object, one.driven.object];
    if (from === to) continue;
    const edge = found.get(`${from} ${to}`) ?? { from, to, says: [] };
    edge.says.push(`${names.driverWords(one)} → ${names.drivenWords(one)}`);
    found.set(`${from} ${to}`, edge);
  }
  return [...found.values()];
});
const layout = computed(() =>
  layoutOf(
    edges.value,
    [...scene.dials.map((one) => one.id), ...scene.objects.map((one) => one.id)],
    (id) => opened.value.has(id) || id === selection.objectId,
  ),
);
const gap = computed(() =>
  Math.max(CARD + 60, Math.min(300, (width.value - 40 - CARD) / Math.max(1, layout.value.columns - 1))),
);
/** Short columns are in the middle of what can be seen. */
const heights = computed(() =>
  Array.from({ length: layout.value.columns }, (_, c) => layout.value.nodes.filter((one) => one.column === c).length),
);
const tall = computed(() => Math.max(height.value - 8, layout.value.rows * ROW + 12));
const place = (node: Node) => ({
  x: 20 + node.column * gap.value,
  y: (tall.value - heights.value[node.column]! * ROW) / 2 + node.row * ROW,
});
const nodeOf = computed(() => new Map(layout.value.nodes.flatMap((node) => node.ids.map((id) => [id, node] as const))));
const lines = computed(() => {
  const found = new Map<string, { d: string; near: boolean; says: string[] }>();
  for (const edge of edges.value) {
    const [a, b] = [nodeOf.value.get(edge.from), nodeOf.value.get(edge.to)];
    if (!a || !b || a === b) continue;
    const key = `${a.column} ${a.row} ${b.column} ${b.row}`;
    const near = edge.from === selection.objectId || edge.to === selection.objectId;
    const line = found.get(key);
    if (line) {
      line.says.push(...edge.says);
      line.near ||= near;
      continue;
    }
    const [from, to] = [place(a), place(b)];
    const [x1, y1, x2, y2] = [from.x + CARD, from.y + ROW / 2 - 3, to.x, to.y + ROW / 2 - 3];
    const bend = Math.max(24, Math.abs(x2 - x1) / 2);
    found.set(key, {
      d: `M${x1} ${y1}C${x1 + bend} ${y1} ${x2 - bend} ${y2} ${x2 - 5} ${y2}`,
      near,
      says: [...edge.says],
    });
  }
  return [...found.values()];
});
const picked = computed(() => selection.objectId !== null && nodeOf.value.has(selection.objectId));

function nameOf(node: Node): string {
  const first = names.objectName(node.ids[0]!);
  return node.ids.length > 1 ? `${first} and ${node.ids.length - 1} more` : first;
}
function painted(id: string): string[] {
  const own = new Set(withParts(id, scene.parts));
  return scene.objects.filter((one) => own.has(one.id) && vocabulary.kindWordsOf(one)?.is_drawn).map((one) => one.id);
}
function press(node: Node): void {
  if (node.ids.length > 1) opened.value = new Set([...opened.value, ...node.ids]);
  else selection.pick(node.ids[0]!);
}
</script>

<template>
  <div ref="area" class="links">
    <div
      v-if="layout.nodes.length"
      class="sheet-of"
      :style="{ width: `${20 + (layout.columns - 1) * gap + CARD + 20}px`, height: `${tall}px` }"
    >
      <svg aria-hidden="true">
        <path v-for="(line, i) in lines" :key="i" :d="line.d" :class="{ near: line.near, far: picked && !line.near }">
          <title>{{ line.says.slice(0, 12).join("\n") }}</title>
        </path>
      </svg>
      <button
        v-for="node in layout.nodes"
        :key="node.ids.join()"
        class="node"
        :class="{
          picked: node.ids.length === 1 && node.ids[0] === selection.objectId,
          dial: isDial(node.ids[0]),
          many: node.ids.length > 1,
        }"
        :style="{ left: `${place(node).x}px`, top: `${place(node).y}px`, width: `${CARD}px` }"
        :title="node.ids.length > 1 ? `${node.ids.map(names.objectName).join(', ')}\nClick to see each` : nameOf(node)"
        @click="press(node)"
      >
        <PaintedThumb v-if="!isDial(node.ids[0])" :ids="painted(node.ids[0]!)" :frame="0" />
        <span v-else class="mark" aria-hidden="true">◔</span>
        <span class="text">{{ nameOf(node) }}</span>
      </button>
      <button v-if="opened.size" class="chip small fold" @click="opened = new Set()">Merge equal parts</button>
    </div>
    <p v-else>No links yet. Drag from one object to another with the link tool, or drag a dial onto a value.</p>
  </div>
</template>

<style scoped>
.links {
  flex: 1;
  overflow: auto;
  min-height: 0;
}
.sheet-of {
  position: relative;
  min-width: 100%;
}
svg {
  position: absolute;
  inset: 0;
  width: 100%;
  height: 100%;
}
path {
  fill: none;
  stroke: #9fb9cb;
  stroke-width: 1.8;
  pointer-events: stroke;
}
path:hover,
.near {
  stroke: var(--look);
  stroke-width: 2.4;
}
.far {
  opacity: 0.35;
}
.node {
  position: absolute;
  height: 30px;
  display: flex;
  align-items: center;
  gap: 8px;
  border: 1px solid var(--line);
  border-radius: 99px;
  background: var(--paper);
  padding: 0 12px 0 3px;
  cursor: pointer;
}
.node :deep(canvas),
.node :deep(svg) {
  position: static;
}
.node:hover {
  border-color: var(--look);
}
.picked {
  border-color: var(--look);
  box-shadow: 0 0 0 2px var(--look-pale);
  font-weight: 600;
}
.dial {
  background: var(--look-pale);
}
.many {
  border-style: dashed;
}
.mark {
  width: 26px;
  text-align: center;
  color: var(--look);
}
.text {
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
  font-size: 12.5px;
}
.fold {
  position: absolute;
  right: 12px;
  top: 6px;
}
p {
  margin: 14px 20px;
  color: var(--ink-2);
}
</style>
