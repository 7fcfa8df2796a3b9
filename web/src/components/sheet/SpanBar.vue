<script setup lang="ts">
/** The span of an object: frames outside it are hatched, and its ends can be dragged. */
import { beginDrag } from "@/composables/useDrag";
import { computed, ref } from "vue";
import { type Span, spanOf } from "@/api/spans";
import type { Edit, SceneObject } from "@/api/types";
import { usePlayback } from "@/stores/playback";
import { useScene } from "@/stores/scene";

const props = defineProps<{ thing: SceneObject; perFrame: number; grips: boolean }>();
/** The span there was, when a new one is kept. */
const emit = defineEmits<{ changed: [was: Span] }>();
const scene = useScene();
const playback = usePlayback();
const held = ref<{ first: number; last: number } | null>(null);

const kept = computed(() => ({ first: props.thing.span?.first ?? 0, last: props.thing.span?.last ?? playback.last }));
const span = computed(() => held.value ?? kept.value);
const said = computed(() => `${props.thing.name} is shown from frame ${span.value.first} to ${span.value.last}`);

/** An end that is on the scene's own goes on with it when the scene gets longer. */
const edit = (to: { first: number; last: number }, stretch: boolean): Edit => ({
  edit: "set-span",
  id: props.thing.id,
  first: to.first <= 0 ? null : to.first,
  last: to.last >= playback.last ? null : to.last,
  stretch,
});

function begin(event: PointerEvent, side: "first" | "last"): void {
  if (event.button !== 0) return;
  event.stopPropagation();
  const from = event.clientX;
  const was = { ...kept.value };
  let stretch = false;
  const move = (e: PointerEvent): void => {
    const to = Math.round(was[side] + (e.clientX - from) / props.perFrame);
    const next =
      side === "first"
        ? { first: Math.min(Math.max(to, 0), was.last), last: was.last }
        : { first: was.first, last: Math.max(Math.min(to, playback.last), was.first) };
    stretch = e.shiftKey;
    if (next.first === held.value?.first && next.last === held.value.last) return;
    held.value = next;
    void scene.lookAt([edit(next, stretch)]);
  };
  const end = async (kept: boolean): Promise<void> => {
    const done = held.value;
    if (kept && done && (done.first !== was.first || done.last !== was.last)) await change(done, stretch);
    else if (done) scene.letGo();
    held.value = null;
  };
  beginDrag(event, { move, end: (kept) => void end(kept) });
}

async function change(to: { first: number; last: number }, stretch: boolean): Promise<void> {
  const was = spanOf(props.thing);
  await scene.edit([edit(to, stretch)]);
  emit("changed", was);
}

function nudge(side: "first" | "last", by: number): void {
  const next = { ...kept.value, [side]: kept.value[side] + by };
  if (next.first <= next.last && next.first >= 0 && next.last <= playback.last) void change(next, false);
}

/** Let the object be shown to the scene's own end again. */
const extend = (side: "first" | "last"): void =>
  void change({ ...kept.value, [side]: side === "first" ? 0 : playback.last }, false);
const HINT =
  "Drag to show it later or shorter; with Shift its keys stretch along; double click: to the scene’s own end";
</script>

<template>
  <span
    v-if="span.first > 0"
    class="away"
    :style="{ left: '-22px', width: `${span.first * perFrame + 22 - perFrame / 2}px` }"
    :title="said"
  />
  <span
    v-if="span.last < playback.last"
    class="away"
    :style="{ left: `${(span.last + 0.5) * perFrame}px`, width: `${(playback.last - span.last) * perFrame + 22}px` }"
    :title="said"
  />
  <template v-if="grips">
    <button
      class="end first"
      :style="{ left: `${span.first * perFrame - 16}px` }"
      :aria-label="`First frame ${thing.name} is shown: ${span.first}`"
      :title="`${said}. ${HINT}`"
      @pointerdown="begin($event, 'first')"
      @dblclick.stop="extend('first')"
      @keydown.left.prevent.stop="nudge('first', -1)"
      @keydown.right.prevent.stop="nudge('first', 1)"
    />
    <button
      class="end last"
      :style="{ left: `${span.last * perFrame + 9}px` }"
      :aria-label="`Last frame ${thing.name} is shown: ${span.last}`"
      :title="`${said}. ${HINT}`"
      @pointerdown="begin($event, 'last')"
      @dblclick.stop="extend('last')"
      @keydown.left.prevent.stop="nudge('last', -1)"
      @keydown.right.prevent.stop="nudge('last', 1)"
    />
  </template>
</template>

<style scoped>
.away {
  position: absolute;
  top: 0;
  bottom: 0;
  background: repeating-linear-gradient(115deg, #b9ad9355 0 2px, transparent 2px 7px);
}
.end {
  position: absolute;
  top: 3px;
  width: 7px;
  height: 18px;
  padding: 0;
  border: 2px solid var(--ink-3);
  background: none;
  cursor: ew-resize;
  touch-action: none;
  opacity: 0.75;
}
.end:hover,
.end:focus-visible {
  border-color: var(--ink);
  opacity: 1;
}
.first {
  border-right: 0;
  border-radius: 5px 0 0 5px;
}
.last {
  border-left: 0;
  border-radius: 0 5px 5px 0;
}
</style>
