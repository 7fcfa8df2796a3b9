<script setup lang="ts">
/** Draw a feel: points put down and dragged, a seed that travels by it, a name to keep it under for all scenes. */
import { beginDrag } from "@/composables/useDrag";
import { ElDialog } from "element-plus";
import { computed, ref, watch } from "vue";
import { useNewest } from "@/composables/useNewest";
import { useSeed } from "@/composables/useSeed";
import { api, ServiceError } from "@/api/client";
import type { Ease, FeelLook } from "@/api/types";
import { useMessages } from "@/stores/messages";
import { useVocabulary } from "@/stores/vocabulary";

const open = defineModel<boolean>({ required: true });
const emit = defineEmits<{ use: [ease: Ease]; look: [ease: Ease]; leave: [] }>();
const messages = useMessages();
const vocabulary = useVocabulary();

type Point = [number, number];
const [W, H, LOW, HIGH] = [340, 220, -0.4, 1.5];
const points = ref<Point[]>([]);
const smooth = ref(true);
const name = ref("");
const look = ref<FeelLook | null>(null);
const area = ref<SVGSVGElement>();

const x = (u: number): number => u * W;
const y = (p: number): number => H * (1 - (p - LOW) / (HIGH - LOW));
const path = computed(() => {
  const curve = look.value?.curve ?? [];
  const points = curve.map((p, i) => `${x(i / (curve.length - 1)).toFixed(1)} ${y(p).toFixed(1)}`);
  return points.length ? `M${points.join("L")}` : "";
});

watch(open, (now) => {
  if (!now) {
    stop();
    return;
  }
  points.value = [
    [0, 0],
    [0.35, 0.7],
    [1, 1],
  ];
  name.value = "";
  start();
});
const beginAsking = useNewest();
watch(
  [points, smooth],
  async () => {
    const isNewest = beginAsking();
    const found = await api.lookAtFeel({ points: points.value, smooth: smooth.value }).catch(() => null);
    if (found && isNewest()) {
      look.value = found;
      if (open.value) emit("look", found.ease);
    }
  },
  { deep: true },
);

function place(event: MouseEvent): Point {
  const rect = area.value!.getBoundingClientRect();
  const u = (event.clientX - rect.left) / rect.width;
  const p = HIGH - ((event.clientY - rect.top) / rect.height) * (HIGH - LOW);
  // The three values one most often means are caught: none, half, all.
  const caught = [0, 0.5, 1].find((one) => Math.abs(one - p) < 0.025);
  return [Math.min(Math.max(u, 0), 1), caught ?? Number(p.toFixed(3))];
}

function hold(event: PointerEvent, i: number): void {
  event.preventDefault();
  event.stopPropagation();
  const was = points.value;
  const move = (e: PointerEvent): void => {
    const [u, p] = place(e);
    const [before, after] = [points.value[i - 1], points.value[i + 1]];
    // The first and last stay at the ends; the others between their neighbours.
    const at = !before ? 0 : !after ? 1 : Math.min(Math.max(Number(u.toFixed(3)), before[0] + 0.005), after[0] - 0.005);
    points.value = points.value.map((one, n): Point => (n === i ? [at, p] : one));
  };
  beginDrag(event, { move, end: (kept) => kept || (points.value = was) });
}

function add(event: PointerEvent): void {
  const [u, p] = place(event);
  if (event.button !== 0 || points.value.length >= 40 || points.value.some((one) => Math.abs(one[0] - u) < 0.006))
    return;
  points.value = [...points.value, [Number(u.toFixed(3)), p] as Point].sort((a, b) => a[0] - b[0]);
}

const remove = (i: number): void => {
  if (i > 0 && i < points.value.length - 1) points.value = points.value.filter((_, n) => n !== i);
};

async function keep(): Promise<void> {
  const wanted = name.value.trim();
  try {
    const kept = await api.keepFeel(wanted, { points: points.value, smooth: smooth.value });
    await vocabulary.readFeels();
    open.value = false;
    emit("use", kept.ease);
    messages.info(`${kept.name} is kept for all scenes.`);
  } catch (error) {
    if (error instanceof ServiceError) messages.error(error.message);
  }
}

function use(): void {
  if (look.value) emit("use", look.value.ease);
  open.value = false;
}

const { share, start, stop } = useSeed(1700, 1300);
const travelled = computed(() => look.value?.curve[Math.round(share.value * (look.value.curve.length - 1))] ?? 0);
const taken = computed(() => vocabulary.ownFeels.some((feel) => feel.name === name.value.trim()));
</script>

<template>
  <ElDialog
    v-model="open"
    title="Draw a feel"
    width="400"
    append-to-body
    modal-class="see-through"
    top="6vh"
    @closed="emit('leave')"
  >
    <p>
      Click to add a point, drag to move it, double-click to remove it. The first key is on the left, the next on the
      right; the two lines are their values.
    </p>
    <svg
      ref="area"
      class="area"
      :viewBox="`0 0 ${W} ${H}`"
      role="application"
      aria-label="Curve of the feel"
      @pointerdown="add"
    >
      <line class="value" x1="0" :x2="W" :y1="y(0)" :y2="y(0)" />
      <line class="value" x1="0" :x2="W" :y1="y(1)" :y2="y(1)" />
      <path :d="path" />
      <circle
        v-for="(point, i) in points"
        :key="i"
        class="point"
        :data-testid="`feel-point-${i}`"
        :cx="x(point[0])"
        :cy="y(point[1])"
        r="7"
        tabindex="0"
        @pointerdown="hold($event, i)"
        @dblclick.stop="remove(i)"
        @keydown.delete.prevent="remove(i)"
      >
        <title>{{ Math.round(point[0] * 100) }} % of the time, {{ Math.round(point[1] * 100) }} % of the way</title>
      </circle>
      <ellipse class="seed" :cx="W - 8" :cy="y(travelled)" rx="6" ry="5" />
    </svg>
    <div class="row">
      <label><input v-model="smooth" type="checkbox" /> smooth between the points</label>
    </div>
    <label class="name"
      ><span>Name</span
      ><input
        v-model="name"
        maxlength="80"
        placeholder="such as Late settle"
        aria-label="Name of the feel"
        @keydown.enter="name.trim() && keep()"
    /></label>
    <template #footer>
      <button class="plain" :disabled="!look" @click="use">Use it here only</button>
      <button
        class="primary"
        :disabled="!look || !name.trim()"
        :title="
          name.trim() ? (taken ? 'Replaces the feel with this name' : 'Kept for all scenes') : 'Give it a name first'
        "
        @click="keep"
      >
        {{ taken ? "Draw it anew" : "Keep and use" }}
      </button>
    </template>
  </ElDialog>
</template>

<style scoped>
p {
  margin: 0 0 8px;
  color: var(--ink-2);
  font-size: 13px;
}
.area {
  width: 100%;
  background: var(--paper-2);
  border-radius: var(--radius);
  cursor: crosshair;
  touch-action: none;
  overflow: visible;
}
.value {
  stroke: #cfc3a9;
  stroke-dasharray: 4 4;
}
path {
  fill: none;
  stroke: var(--travel);
  stroke-width: 2.5;
  stroke-linejoin: round;
}
.point {
  fill: var(--paper);
  stroke: var(--travel);
  stroke-width: 2.5;
  cursor: move;
}
.seed {
  fill: var(--size-fill);
}
.row {
  margin: 8px 0;
}
label {
  display: flex;
  gap: 7px;
  align-items: center;
}
.name input {
  flex: 1;
  font: inherit;
  border: 1px solid var(--line);
  border-radius: var(--radius-s);
  padding: 5px 8px;
  background: var(--paper);
}
.plain {
  margin-right: 8px;
}
</style>
