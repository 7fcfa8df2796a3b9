<script setup lang="ts">
/**
 * The skeleton of the picked figure: its bones, and what one pulls at to pose it; or, under its own tool, the joints
 * where they rest.
 */
import { computed, shallowRef } from "vue";
import { bonesOf } from "@/api/figures";
import { isShape } from "@/api/kinds";
import { numberAt, valuesAt } from "@/api/motion";
import type { Edit, FigureObject } from "@/api/types";
import type { PictureView } from "@/composables/picture/usePictureView";
import { type Joint, jointsOf, pulled, pullsOf, withJoint } from "@/geometry/joints";
import { IDENTITY, inverse, type Matrix, moved, type Point, times, toMatrix } from "@/geometry/matrix";
import { beginOwnDrag } from "@/composables/useDrag";
import { usePlayback } from "@/stores/playback";
import { useScene } from "@/stores/scene";
import { useSelection } from "@/stores/selection";
import { useVocabulary } from "@/stores/vocabulary";

const props = defineProps<{ thing: FigureObject; view: PictureView; toPicture: (event: PointerEvent) => Point }>();
const scene = useScene();
const selection = useSelection();
const playback = usePlayback();
const vocabulary = useVocabulary();

const baked = computed(() => scene.motion?.objects.get(props.thing.id));
const at = (name: string, otherwise = 0): number =>
  baked.value?.channels[name] ? numberAt(baked.value.channels[name], playback.frame) : otherwise;
const matrixOf = (bone: string): Matrix | null =>
  baked.value?.bones[bone] ? toMatrix(valuesAt(baked.value.bones[bone], playback.frame)) : null;
/** From the space the figure rests in to the picture, the way it faces. */
const resting = computed((): Matrix =>
  times(baked.value ? toMatrix(valuesAt(baked.value.view, playback.frame)) : IDENTITY, [
    at("facing", 1) < 0 ? -1 : 1,
    0,
    0,
    1,
    0,
    0,
  ]),
);

const figure = computed(() => fresh.value ?? props.thing.figure);
/** Its bones where they rest, by name. */
const bonesByName = computed(() => new Map(bonesOf(props.thing.figure).map((bone) => [bone.name, bone])));
const bones = computed(() =>
  [...bonesByName.value.values()].flatMap((bone) => {
    const world = matrixOf(bone.name);
    if (!world || bone.name === "hips") return [];
    return [
      {
        ...bone,
        a: props.view.onStage(world, { x: bone.start[0], y: bone.start[1] }),
        b: props.view.onStage(world, { x: bone.end[0], y: bone.end[1] }),
      },
    ];
  }),
);
const pulls = computed(() =>
  pullsOf(props.thing.figure, (limb) => at(`${limb}.reach`) >= 0.5).flatMap((pull) => {
    const [bone, world] = [bonesByName.value.get(pull.bone), matrixOf(pull.bone)];
    if (!bone || !world) return [];
    const [start, end] = [
      moved(world, { x: bone.start[0], y: bone.start[1] }),
      moved(world, { x: bone.end[0], y: bone.end[1] }),
    ];
    return [{ pull, start, end, shown: props.view.onStage(IDENTITY, end) }];
  }),
);
const joints = computed(() =>
  jointsOf(figure.value).map((joint) => ({ joint, shown: props.view.onStage(resting.value, joint.at) })),
);
const rest = computed(() =>
  bonesOf(figure.value).map((bone) => ({
    name: bone.name,
    a: props.view.onStage(resting.value, { x: bone.start[0], y: bone.start[1] }),
    b: props.view.onStage(resting.value, { x: bone.end[0], y: bone.end[1] }),
  })),
);

/** A figure's parts in the rest pose, pale, over the pose of this frame. */
const ghosts = computed(() =>
  selection.tool !== "joints"
    ? []
    : (scene.parts.get(props.thing.id) ?? []).flatMap((part) => {
        const own = scene.motion?.objects.get(part.id);
        if (!own || !isShape(part) || part.shape.type !== "outline" || !part.bone) return [];
        const [a, b, c, d, e, f] = times(resting.value, toMatrix(valuesAt(own.local, playback.frame)));
        const [s, at] = [props.view.scale.value, props.view.onStage(IDENTITY, { x: e, y: f })];
        return [
          { id: part.id, d: part.shape.d, transform: `matrix(${a * s} ${b * s} ${c * s} ${d * s} ${at.x} ${at.y})` },
        ];
      }),
);

/** The figure while one of its joints is dragged. */
const fresh = shallowRef<FigureObject["figure"] | null>(null);

/** Where grips lie over one another, the one nearest to the hand is meant. */
function nearest<T>(event: PointerEvent, all: readonly T[], place: (one: T) => Point): T {
  const hand = props.toPicture(event);
  const far = (one: T): number => Math.hypot(place(one).x - hand.x, place(one).y - hand.y);
  return all.reduce((best, one) => (far(one) < far(best) ? one : best));
}

function pose(event: PointerEvent): void {
  const { pull, start, end: from } = nearest(event, pulls.value, (one) => one.end);
  const home = inverse(resting.value);
  if (event.button !== 0 || !home) return;
  playback.pause();
  const row = vocabulary
    .rowsOf(props.thing)
    .find((one) => one.channels.some((channel) => channel.name === pull.channels[0]));
  selection.pick(props.thing.id);
  if (row) selection.pickRow(row.name, pull.channels[0]);
  const [own, begun] = [moved(home, start), moved(home, from)];
  let edits: Edit[] = [];
  const looksOnly = !selection.keyAsIMove && pull.channels.some((name) => selection.keysOf(name).length > 0);
  beginOwnDrag(event, {
    move: (e) => {
      const by = pulled(pull, own, begun, moved(home, props.toPicture(e)));
      edits = [{ edit: "pose-joints", id: props.thing.id, frame: playback.frame, by, key: selection.keyAsIMove }];
      void scene.lookAt(edits);
    },
    end: (kept) => {
      if (!edits.length || !kept) scene.letGo();
      else if (looksOnly) void scene.lookAt(edits, `${props.thing.name}: ${pull.label} at frame ${playback.frame}`);
      else void scene.edit(edits);
    },
  });
}

function shape(event: PointerEvent): void {
  const joint: Joint = nearest(event, jointsOf(props.thing.figure), (one) => moved(resting.value, one.at));
  const home = inverse(resting.value);
  if (event.button !== 0 || !home) return;
  playback.pause();
  beginOwnDrag(event, {
    move: (e) => {
      fresh.value = withJoint(props.thing.figure, joint, moved(home, props.toPicture(e)));
      void scene.lookAt([{ edit: "set-figure", id: props.thing.id, figure: fresh.value }]);
    },
    end: (kept) => {
      const made = fresh.value;
      fresh.value = null;
      if (!made || !kept) scene.letGo();
      else void scene.edit([{ edit: "set-figure", id: props.thing.id, figure: made }]);
    },
  });
}
</script>

<template>
  <g v-if="selection.tool === 'joints'" class="resting" data-testid="resting">
    <path v-for="ghost in ghosts" :key="ghost.id" class="ghost" :d="ghost.d" :transform="ghost.transform" />
    <line v-for="bone in rest" :key="bone.name" :x1="bone.a.x" :y1="bone.a.y" :x2="bone.b.x" :y2="bone.b.y" />
    <g v-for="{ joint, shown } in joints" :key="`${joint.of} ${joint.n}`">
      <circle class="joint" :cx="shown.x" :cy="shown.y" r="4.5" />
      <circle class="grab" :cx="shown.x" :cy="shown.y" r="9" :data-testid="`joint ${joint.label}`" @pointerdown="shape"
        ><title>{{ joint.label }}: drag it to where it belongs</title></circle
      >
    </g>
  </g>
  <g v-else class="skeleton" data-testid="skeleton">
    <g v-for="bone in bones" :key="bone.name">
      <line class="under" :x1="bone.a.x" :y1="bone.a.y" :x2="bone.b.x" :y2="bone.b.y" />
      <line class="bone" :x1="bone.a.x" :y1="bone.a.y" :x2="bone.b.x" :y2="bone.b.y" />
      <circle class="pin" :cx="bone.a.x" :cy="bone.a.y" r="2.2" />
    </g>
    <template v-if="selection.tool === 'pick'">
      <g v-for="{ pull, shown } in pulls" :key="pull.bone">
        <rect
          v-if="pull.channels.length === 2"
          class="pull"
          :x="shown.x - 4.5"
          :y="shown.y - 4.5"
          width="9"
          height="9"
          rx="2.5"
        />
        <circle v-else class="pull turns" :cx="shown.x" :cy="shown.y" r="3.6" />
        <circle
          class="grab"
          :cx="shown.x"
          :cy="shown.y"
          r="8"
          :data-testid="`pull ${pull.label}${pull.channels.length === 2 ? '' : ' turn'}`"
          @pointerdown="pose"
        >
          <title>
            {{ pull.label }}: {{ pull.channels.length === 2 ? "drag it to where it shall be" : "drag to turn it" }}, on
            top of what the gait does
          </title>
        </circle>
      </g>
    </template>
  </g>
</template>

<style scoped>
.under {
  stroke: #fcf9f2;
  stroke-width: 4;
  opacity: 0.55;
  stroke-linecap: round;
}
.bone {
  stroke: var(--ink);
  stroke-width: 1.4;
  stroke-linecap: round;
}
.pin {
  fill: var(--ink);
}
.pull {
  fill: var(--paper);
  stroke: var(--travel);
  stroke-width: 2;
}
.pull.turns {
  stroke: var(--turn);
}
.grab {
  fill: none;
  pointer-events: all;
  cursor: grab;
}
.resting line {
  stroke: var(--ink);
  stroke-width: 1.6;
  stroke-dasharray: 4 3;
}
.ghost {
  fill: #fcf9f2;
  fill-opacity: 0.5;
  stroke: var(--size);
  stroke-width: 1;
  vector-effect: non-scaling-stroke;
}
.joint {
  fill: var(--size-pale);
  stroke: var(--size);
  stroke-width: 2;
}
</style>
