<script setup lang="ts">
/**
 * When the keys of a lane are played: dragged as a whole it is the delay of a retime rule, at its end the speed. The
 * keys stay put.
 */
import { newRuleId } from "@/api/ids";
import { computed, ref } from "vue";
import type { Edit, Rule } from "@/api/types";
import type { Lane } from "@/composables/sheet/useLaneMaking";
import { retimeEdit } from "@/composables/rules/ruleEdits";
import { useRules } from "@/composables/rules/useRules";
import { ending, later, playedAt, type Retime } from "@/geometry/retime";
import { beginOwnDrag } from "@/composables/useDrag";
import { useScene } from "@/stores/scene";

const props = defineProps<{ lane: Lane; perFrame: number }>();
const scene = useScene();
const rules = useRules();
const PLAIN: Retime = { delay: 0, speed: 1 };
/** Where the hand has it, while it is dragged. */
const drawn = ref<Retime | null>(null);

/** The channels meant: those of a row, or all of an object that move. */
const meant = computed<readonly string[]>(() => props.lane.channels.filter((name) => !name.includes(":")));
/** A retime that acts on all of them and on nothing else of the lane's, switched on. */
const rule = computed((): Rule | null => {
  const whole = props.lane.row === null;
  const fits = (one: Rule): boolean =>
    one.channels === "keyed"
      ? whole
      : one.channels.length === meant.value.length && meant.value.every((name) => one.channels.includes(name));
  return props.lane.thing.rules.find((one) => one.kind === "retime" && one.on && fits(one)) ?? null;
});
const isKeyed = computed(
  () => rule.value !== null && ["delay", "speed"].some((name) => rules.keysOf(rule.value!, name).length > 0),
);
const kept = computed((): Retime =>
  rule.value
    ? { delay: rules.plainOf(rule.value, "delay") ?? 0, speed: rules.plainOf(rule.value, "speed") ?? 1 }
    : PLAIN,
);
const now = computed(() => drawn.value ?? kept.value);
const first = computed(() => props.lane.frames[0] ?? 0);
const last = computed(() => props.lane.frames.at(-1) ?? 0);
const from = computed(() => playedAt(now.value, first.value));
const to = computed(() => playedAt(now.value, last.value));
const shown = computed(
  () => meant.value.length > 0 && !isKeyed.value && from.value !== null && to.value !== null && now.value.speed > 0,
);
const changed = computed(() => now.value.delay !== 0 || now.value.speed !== 1);
const said = computed(() => {
  const { delay, speed } = now.value;
  const parts = [
    delay ? `${Number(Math.abs(delay).toFixed(1))} frames ${delay > 0 ? "later" : "earlier"}` : "",
    speed === 1 ? "" : `${Number(speed.toFixed(3))} × as fast`,
  ];
  return parts.filter(Boolean).join(", ") || "played as keyed";
});

/** One retime rule is made at the first drag, after all others, so that what they add is delayed with the keys. */
const made = ref("");
function edits(wanted: Retime): Edit[] {
  const object = props.lane.thing.id;
  if (rule.value) {
    const id = rule.value.id;
    return (["delay", "speed"] as const)
      .filter((name) => wanted[name] !== kept.value[name])
      .map((name): Edit => ({ edit: "set-setting", object, rule: id, setting: name, value: wanted[name] }));
  }
  if (wanted.delay === 0 && wanted.speed === 1) return [];
  made.value ||= newRuleId();
  return [retimeEdit(props.lane.thing, props.lane.row === null ? "keyed" : [...meant.value], wanted, made.value)];
}

function begin(event: PointerEvent, side: "all" | "end"): void {
  const start = event.clientX;
  const [was, end] = [kept.value, to.value ?? last.value];
  let wanted: Edit[] = [];
  const move = (e: PointerEvent): void => {
    const frames = (e.clientX - start) / props.perFrame;
    drawn.value = side === "all" ? later(was, frames) : ending(was, first.value, last.value, Math.round(end + frames));
    wanted = edits(drawn.value);
    if (wanted.length) void scene.lookAt(wanted);
    else scene.letGo();
  };
  const done = async (isKept: boolean): Promise<void> => {
    if (wanted.length && isKept) await scene.edit(wanted);
    else if (drawn.value || wanted.length) scene.letGo();
    drawn.value = null;
    made.value = "";
  };
  beginOwnDrag(event, { move, end: (isKept) => void done(isKept) });
}

function nudge(side: "all" | "end", by: number): void {
  const wanted = edits(
    side === "all"
      ? later(kept.value, by)
      : ending(kept.value, first.value, last.value, Math.round((to.value ?? last.value) + by)),
  );
  made.value = "";
  if (wanted.length) void scene.edit(wanted);
}

/** Play the keys at their own pace again. */
const reset = (): void => void scene.edit(edits(PLAIN));
const name = computed(() => `${props.lane.thing.name}${props.lane.row ? ` ${props.lane.row.name.toLowerCase()}` : ""}`);
</script>

<template>
  <template v-if="shown">
    <button
      class="bar"
      :class="{ changed }"
      :style="{ left: `${(from ?? 0) * perFrame}px`, width: `${((to ?? 0) - (from ?? 0)) * perFrame}px` }"
      :aria-label="`Delay of ${name}: ${said}`"
      :title="`${name}: ${said}. Drag it to play the keys later or earlier; the keys stay put. Double click: as keyed`"
      @pointerdown="begin($event, 'all')"
      @dblclick.stop="reset"
      @keydown.left.prevent.stop="nudge('all', -1)"
      @keydown.right.prevent.stop="nudge('all', 1)"
    />
    <button
      v-if="last > first"
      class="pace"
      :class="{ changed }"
      :style="{ left: `${(to ?? 0) * perFrame}px` }"
      :aria-label="`Speed of ${name}: ${said}`"
      :title="`${name}: ${said}. Drag it to play the keys faster or slower; the keys stay put. Double click: as keyed`"
      @pointerdown="begin($event, 'end')"
      @dblclick.stop="reset"
      @keydown.left.prevent.stop="nudge('end', -1)"
      @keydown.right.prevent.stop="nudge('end', 1)"
    />
  </template>
</template>

<style scoped>
.bar {
  position: absolute;
  bottom: 0;
  height: 5px;
  padding: 0;
  border: 0;
  border-radius: 3px;
  background: var(--stem);
  opacity: 0;
  cursor: grab;
  touch-action: none;
}
.bar.changed {
  opacity: 0.8;
}
.pace {
  position: absolute;
  bottom: -1px;
  width: 7px;
  height: 9px;
  margin-left: -3px;
  padding: 0;
  border: 1.5px solid var(--stem);
  border-radius: 0 6px 6px 0;
  background: var(--paper);
  opacity: 0;
  cursor: ew-resize;
  touch-action: none;
}
.pace.changed {
  opacity: 1;
}
.strip:hover > .bar,
.strip:hover > .pace,
.bar:hover,
.bar:focus-visible,
.pace:focus-visible {
  opacity: 1;
}
</style>
