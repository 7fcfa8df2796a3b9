<script setup lang="ts">
/**
 * The rules of the picked channel in the picture: floors, rims, weights and pointers one can drag, the leader of a
 * follow, and how the stretch goes along the way.
 */
import { computed, shallowRef } from "vue";
import { numberAt, valuesAt } from "@/api/motion";
import type { Edit, Rule } from "@/api/types";
import { useOutlineWay } from "@/composables/useOutlineWay";
import { useRules } from "@/composables/rules/useRules";
import type { PictureView } from "@/composables/picture/usePictureView";
import { arrowStep } from "@/geometry/arrows";
import { type Matrix, IDENTITY, inverse, moved, type Point } from "@/geometry/matrix";
import { outlineDrawingOf } from "@/geometry/outlineGrips";
import { lookDrawingOf } from "@/geometry/lookGrips";
import { drawingOf, type RuleGrip } from "@/geometry/ruleGrips";
import { carrierOf, cornersOf, viewOf } from "@/picture/boxes";
import { beginOwnDrag } from "@/composables/useDrag";
import { usePlayback } from "@/stores/playback";
import { lensOf } from "@/picture/lens";
import { useScene } from "@/stores/scene";
import { useSelection } from "@/stores/selection";

const props = defineProps<{ view: PictureView; toPicture: (event: PointerEvent) => Point }>();
const scene = useScene();
const selection = useSelection();
const playback = usePlayback();
const rules = useRules();

const thing = computed(() => selection.thing);
const baked = computed(() => scene.motion?.objects.get(thing.value?.id ?? ""));
/** The space the object moves in: its parent's, or the picture. */
const space = computed((): Matrix => carrierOf(scene.motion, thing.value, playback.frame));
const onStage = (within: Matrix, p: Point): Point => props.view.onStage(within, p);
const at = (p: Point): Point => onStage(space.value, p);
/** By how much a space makes lengths larger, about. */
const sizeOf = ([a, b, c, d]: Matrix): number => Math.sqrt(Math.abs(a * d - b * c));
const channel = (name: string, frame: number): number =>
  baked.value?.channels[name] ? numberAt(baked.value.channels[name], frame) : 0;

const here = computed(() =>
  thing.value && selection.channel
    ? rules.onChannel(thing.value, selection.channel.name).filter((rule) => rule.on)
    : [],
);
const keys = computed(() =>
  [...new Set(["x", "y", "path"].flatMap((name) => selection.keysOf(name).map((key) => key.frame)))].sort(
    (a, b) => a - b,
  ),
);

const number =
  (rule: Rule) =>
  (name: string): number => {
    const words = rules.wordsOf(rule)?.settings.find((one) => one.name === name);
    return words ? (rules.numberOf(rule, words) ?? 0) : 0;
  };
const word =
  (rule: Rule) =>
  (name: string): string =>
    String(
      rules.settingOf(rule, name) ?? rules.wordsOf(rule)?.settings.find((one) => one.name === name)?.default ?? "",
    );
/** Rules on outlines are drawn in the space of what they bend. */
const bends = (rule: Rule): boolean => rules.wordsOf(rule)?.of === "outline";
const along = useOutlineWay(here);
const inner = computed(
  (): Matrix => (scene.motion && thing.value && viewOf(scene.motion, thing.value.id, playback.frame)) || IDENTITY,
);
const bent = computed(() => {
  const box = baked.value?.rest;
  if (!box) return [];
  return here.value.filter(bends).map((rule) => ({
    rule,
    drawing: outlineDrawingOf({
      kind: rule.kind,
      number: number(rule),
      word: word(rule),
      box,
      along: along.value.get(rule.id),
    }),
  }));
});
/** Looks are drawn in the scene: whichever way an object is turned, its shadow falls where it falls. */
const lens = computed((): Matrix => lensOf(scene.motion, thing.value?.id ?? "", playback.frame));
/** The middle and the right edge of the box of an object, in the scene. */
function edgesOf(id: string): { middle: Point; right: Point } | null {
  const back = inverse(lens.value);
  const seen = scene.motion && cornersOf(scene.motion, id, playback.frame, scene.parts);
  if (!back || !seen) return null;
  const points = seen.map((corner) => moved(back, corner));
  const [xs, ys] = [points.map((p) => p.x), points.map((p) => p.y)];
  const y = (Math.min(...ys) + Math.max(...ys)) / 2;
  return { middle: { x: (Math.min(...xs) + Math.max(...xs)) / 2, y }, right: { x: Math.max(...xs), y } };
}
const looks = computed(() => {
  const id = thing.value?.id ?? "";
  const rows = baked.value?.place;
  if (!rows) return [];
  const [x = 0, y = 0] = valuesAt(rows, playback.frame);
  return here.value
    .filter((rule) => rules.wordsOf(rule)?.of === "look")
    .map((rule, nth) => {
      const by = rule.kind === "mask" ? word(rule)("by") : id;
      return {
        rule,
        drawing: lookDrawingOf({
          kind: rule.kind,
          number: number(rule),
          word: word(rule),
          pivot: { x, y },
          edges: by ? edgesOf(by) : null,
          nth,
          px: 1 / (props.view.scale.value * sizeOf(lens.value)),
        }),
      };
    });
});
const shown = computed(() => [
  ...drawings.value.map((one) => ({ ...one, space: space.value })),
  ...bent.value.map((one) => ({ ...one, space: inner.value })),
  ...looks.value.map((one) => ({ ...one, space: lens.value })),
]);

const drawings = computed(() =>
  here.value.map((rule) => ({
    rule,
    drawing: drawingOf({
      kind: rule.kind,
      number: number(rule),
      word: (name) => String(rules.settingOf(rule, name) ?? ""),
      frame: playback.frame,
      fps: playback.fps,
      last: playback.last,
      place: (frame) => ({ x: channel("x", frame), y: channel("y", frame) }),
      rotation: (frame) => channel("rotation", frame),
      keys: keys.value,
    }),
  })),
);

/** While a leader is being looked for: where the hand is, and whom it is over. */
const seeking = shallowRef<{ rule: string; to: Point; over: string | null } | null>(null);
const followers = computed(() => here.value.filter((rule) => rule.kind === "follow"));
const placeOf = (id: string): Point | null => {
  const place = scene.motion?.objects.get(id)?.place;
  if (!place) return null;
  const [x = 0, y = 0] = valuesAt(place, playback.frame);
  return props.view.onStage(lensOf(scene.motion, id, playback.frame), { x, y });
};
const own = computed(() => placeOf(thing.value?.id ?? ""));
/** Where the line to the leader ends: at the leader, or beside the object where it is missing yet. */
const ends = computed(() =>
  followers.value.map((rule) => {
    const leader = String(rules.settingOf(rule, "leader") ?? "");
    const found = placeOf(leader);
    const free = own.value ? { x: own.value.x + 46, y: own.value.y - 46 } : { x: 0, y: 0 };
    const sought = seeking.value?.rule === rule.id ? seeking.value : null;
    return {
      rule,
      at: sought?.to ?? found ?? free,
      name: scene.byId.get(sought ? (sought.over ?? "") : leader)?.name ?? null,
    };
  }),
);

/** How a dot is stretched along the way: every few frames about the playhead. */
const dots = computed(() => {
  if (!here.value.some((rule) => rule.kind === "squash-stretch")) return [];
  const list = [];
  for (
    let frame = Math.max(0, playback.frame - 24);
    frame <= Math.min(playback.last, playback.frame + 24);
    frame += 2
  ) {
    const stretch = channel("stretch", frame);
    const place = at({ x: channel("x", frame), y: channel("y", frame) });
    list.push({
      frame,
      transform: `translate(${place.x} ${place.y}) rotate(${channel("stretch.angle", frame)})`,
      rx: 7 * stretch,
      ry: 7 / stretch,
    });
  }
  return list;
});

function edits(rule: Rule, values: Readonly<Record<string, number>>): Edit[] {
  return Object.entries(values).flatMap(([name, value]) => rules.settingEdits(rule, name, value));
}

function begin(event: PointerEvent, rule: Rule, grip: RuleGrip, within: Matrix): void {
  const back = inverse(within);
  if (!back) return;
  const picture = props.toPicture(event);
  const start = moved(back, picture);
  const off = { x: grip.at.x - start.x, y: grip.at.y - start.y };
  let wanted: Edit[] = [];
  const move = (e: PointerEvent): void => {
    const to = moved(back, props.toPicture(e));
    wanted = edits(rule, grip.drag({ x: to.x + off.x, y: to.y + off.y }));
    void scene.lookAt(wanted);
  };
  beginOwnDrag(event, { move, end: (kept) => void (wanted.length && (kept ? scene.edit(wanted) : scene.letGo())) });
}

function nudge(event: KeyboardEvent, rule: Rule, grip: RuleGrip): void {
  const by = arrowStep(event);
  if (by) void scene.edit(edits(rule, grip.drag({ x: grip.at.x + by.x, y: grip.at.y + by.y })));
}

const NEAR = 70;
/** Draw a line to whom it shall follow. */
function seek(event: PointerEvent, rule: Rule): void {
  const move = (e: PointerEvent): void => {
    const to = props.view.onStage(IDENTITY, props.toPicture(e));
    const nearest = scene.objects
      .filter((one) => one.id !== thing.value?.id)
      .map((one) => ({ id: one.id, place: placeOf(one.id) }))
      .map((one) => ({ id: one.id, far: one.place ? Math.hypot(one.place.x - to.x, one.place.y - to.y) : Infinity }))
      .sort((a, b) => a.far - b.far)[0];
    seeking.value = { rule: rule.id, to, over: nearest && nearest.far < NEAR ? nearest.id : null };
  };
  const end = (kept: boolean): void => {
    const found = seeking.value;
    seeking.value = null;
    if (found && kept) void scene.edit(rules.settingEdits(rule, "leader", found.over));
  };
  beginOwnDrag(event, { move, end });
}
</script>

<template>
  <g class="rules">
    <ellipse v-for="dot in dots" :key="dot.frame" class="dot" :transform="dot.transform" :rx="dot.rx" :ry="dot.ry" />
    <g v-for="{ rule, drawing, space: within } in shown" :key="rule.id">
      <line
        v-for="(line, i) in drawing.lines"
        :key="i"
        class="line"
        :x1="onStage(within, line[0]).x"
        :y1="onStage(within, line[0]).y"
        :x2="onStage(within, line[1]).x"
        :y2="onStage(within, line[1]).y"
      />
      <circle
        v-for="(circle, i) in drawing.circles"
        :key="i"
        class="line"
        :cx="onStage(within, circle.middle).x"
        :cy="onStage(within, circle.middle).y"
        :r="circle.radius * view.scale.value * sizeOf(within)"
      />
      <circle
        v-for="grip in drawing.grips"
        :key="grip.id"
        class="grip"
        role="button"
        tabindex="0"
        :aria-label="grip.label"
        :data-testid="`rule-${grip.id}`"
        :cx="onStage(within, grip.at).x"
        :cy="onStage(within, grip.at).y"
        r="7"
        @pointerdown="begin($event, rule, grip, within)"
        @keydown="nudge($event, rule, grip)"
        ><title>{{ grip.label }}: drag it, or use the arrow keys</title></circle
      >
      <text
        v-for="grip in drawing.grips"
        :key="`${grip.id} says`"
        class="name"
        :x="onStage(within, grip.at).x + 12"
        :y="onStage(within, grip.at).y + 4"
        >{{ grip.says }}</text
      >
    </g>
    <g v-for="end in ends" :key="end.rule.id">
      <line v-if="own" class="line led" :x1="own.x" :y1="own.y" :x2="end.at.x" :y2="end.at.y" />
      <circle
        class="grip"
        role="button"
        tabindex="0"
        data-testid="rule-leader"
        :aria-label="end.name ? `Follows ${end.name}` : 'Follows nobody yet'"
        :cx="end.at.x"
        :cy="end.at.y"
        r="7"
        @pointerdown="seek($event, end.rule)"
        ><title>
          {{ end.name ? `Follows ${end.name}` : "Follows nobody yet" }}: drag it onto whom it shall follow
        </title></circle
      >
      <text v-if="end.name" class="name" :x="end.at.x + 11" :y="end.at.y - 8">{{ end.name }}</text>
    </g>
  </g>
</template>

<style scoped>
.line {
  fill: none;
  stroke: var(--ink);
  stroke-width: 1.4;
  stroke-dasharray: 6 4;
  opacity: 0.75;
  pointer-events: none;
}
.led {
  stroke-dasharray: none;
  stroke: var(--look);
}
.dot {
  fill: var(--size-fill);
  fill-opacity: 0.28;
  stroke: var(--size);
  stroke-width: 1;
  pointer-events: none;
}
.grip {
  fill: var(--paper);
  stroke: var(--ink);
  stroke-width: 2;
  pointer-events: all;
  cursor: move;
}
.grip:hover,
.grip:focus-visible {
  fill: var(--playhead-pale);
  stroke: var(--playhead);
  outline: none;
}
.name {
  font-size: 12px;
  font-weight: 600;
  fill: var(--ink);
  paint-order: stroke;
  stroke: var(--paper);
  stroke-width: 3px;
  pointer-events: none;
}
</style>
