<script setup lang="ts">
/**
 * The edge of a panel: dragged, or moved with the arrow keys, it gives it more or less room; a double click, Enter or a
 * drag past the least folds it away, and brings it back.
 */
import { computed } from "vue";
import { beginDrag } from "@/composables/useDrag";
import { type Panel, PANELS, usePanels } from "@/stores/panels";

const props = defineProps<{ panel: Panel }>();
const panels = usePanels();
const spec = computed(() => PANELS[props.panel]);
const size = computed({
  get: () => panels.sizes[props.panel],
  set: (value: number) => (panels.sizes[props.panel] = value),
});
const folded = computed(() => panels.isFolded(props.panel));
const label = computed(() =>
  folded.value
    ? `Bring the ${spec.value.name.toLowerCase()} back: click, or drag`
    : `Drag to give the ${spec.value.name.toLowerCase()} more or less room; double click to fold it away`,
);
const upright = computed(() => spec.value.edge !== "top");
const within = (value: number): number => Math.min(Math.max(value, spec.value.least), spec.value.most);
/** How much larger it becomes when the pointer goes so far. */
const growth = (event: PointerEvent, from: PointerEvent): number =>
  spec.value.edge === "top"
    ? from.clientY - event.clientY
    : (event.clientX - from.clientX) * (spec.value.edge === "right" ? 1 : -1);
/** So much smaller than the least it folds. */
const PAST = 60;

function begin(press: PointerEvent): void {
  if (press.button !== 0) return;
  const [was, wasFolded] = [size.value, folded.value];
  let dragged = false;
  const move = (event: PointerEvent): void => {
    const wanted = (wasFolded ? 0 : was) + growth(event, press);
    dragged ||= Math.abs(growth(event, press)) > 3;
    if (!dragged) return;
    if (wanted < spec.value.least - PAST !== panels.isFolded(props.panel)) panels.fold(props.panel);
    size.value = within(Math.max(wanted, spec.value.least));
  };
  const end = (kept: boolean): void => {
    if (!dragged && wasFolded && kept) panels.fold(props.panel);
    if (kept) return;
    size.value = was;
    if (panels.isFolded(props.panel) !== wasFolded) panels.fold(props.panel);
  };
  beginDrag(press, { move, end });
}

function key(event: KeyboardEvent): void {
  const larger = { top: "ArrowUp", right: "ArrowRight", left: "ArrowLeft" }[spec.value.edge];
  const smaller = { top: "ArrowDown", right: "ArrowLeft", left: "ArrowRight" }[spec.value.edge];
  if (event.key === "Enter") panels.fold(props.panel);
  else if (event.key === larger) size.value = within(size.value + 16);
  else if (event.key === smaller) size.value = within(size.value - 16);
  else return;
  event.preventDefault();
  event.stopPropagation();
}
</script>

<template>
  <div
    class="divider"
    :class="[spec.edge, { folded }]"
    role="separator"
    tabindex="0"
    :aria-orientation="upright ? 'vertical' : 'horizontal'"
    :aria-label="label"
    :aria-valuenow="folded ? 0 : size"
    :aria-valuemin="spec.least"
    :aria-valuemax="spec.most"
    :title="label"
    @pointerdown="begin"
    @dblclick="folded || panels.fold(panel)"
    @keydown="key"
  >
    <span v-if="folded" aria-hidden="true">{{ spec.name }}</span>
  </div>
</template>

<style scoped>
.divider {
  position: absolute;
  z-index: 3;
  touch-action: none;
}
.top {
  left: 0;
  right: 0;
  top: -4px;
  height: 8px;
  cursor: ns-resize;
}
.left,
.right {
  top: 0;
  bottom: 0;
  width: 8px;
  cursor: ew-resize;
}
.left {
  left: -4px;
}
.right {
  right: -4px;
}
.divider:hover,
.divider:focus-visible {
  background: color-mix(in srgb, var(--travel) 35%, transparent);
  outline: none;
}
.folded {
  inset: 0;
  width: auto;
  height: auto;
  cursor: pointer;
  background: var(--paper-3);
  border: 1px solid var(--line);
  display: grid;
  place-items: center;
  font-size: 10.5px;
  line-height: 1;
  color: var(--ink-2);
  overflow: hidden;
}
.folded.left span,
.folded.right span {
  writing-mode: vertical-rl;
}
</style>
