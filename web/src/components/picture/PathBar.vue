<script setup lang="ts">
/** What can be done with a path, shown under the path tool. */
import { computed } from "vue";
import type { Edit } from "@/api/types";
import PopUp from "@/components/common/PopUp.vue";
import ToolStrip from "@/components/picture/ToolStrip.vue";
import BendFields from "@/components/curves/BendFields.vue";
import type { PathEdit } from "@/composables/path/usePathEdit";
import { useSetCorner } from "@/composables/path/usePathShape";
import { useScene } from "@/stores/scene";
import { useSelection } from "@/stores/selection";

const props = defineProps<{ path: PathEdit }>();
const scene = useScene();
const selection = useSelection();
const setCorner = useSetCorner();

const keys = computed(() => props.path.keys.value);
const object = computed(() => selection.objectId ?? "");
/** The points meant: those picked, else all. */
const meant = computed(() => {
  const picked = keys.value.filter((key) => props.path.isPicked(key));
  return (picked.length ? picked : keys.value).map((key) => key.frame);
});
const picked = computed(() => keys.value.some((key) => props.path.isPicked(key)));
const WAYS = [
  { way: "straight" as const, says: "Straight", about: "Straight to and from these points" },
  { way: "bezier" as const, says: "Bezier", about: "Bent by handles you can pull" },
  {
    way: "spline" as const,
    says: "Spline",
    about: "One smooth curve through the points, with tension, continuity and bias",
  },
];
/** The keys whose stretches touch the points meant, on either side. */
const touched = computed(() =>
  keys.value
    .slice(0, -1)
    .filter((key, i) => meant.value.includes(key.frame) || meant.value.includes(keys.value[i + 1]!.frame)),
);
const current = computed(() => {
  const ways = new Set(touched.value.map((key) => props.path.wayOf(keys.value.indexOf(key))));
  return ways.size === 1 ? [...ways][0] : null;
});
const splined = computed(() => keys.value.some((_, i) => props.path.wayOf(i) === "spline"));
const canJoin = computed(() => selection.keysOf("x").length + selection.keysOf("y").length > 0);
const make = (...edits: Edit[]): void => void scene.edit(edits);

function setWay(way: (typeof WAYS)[number]["way"]): void {
  if (touched.value.length)
    make({ edit: "set-way", object: object.value, frames: touched.value.map((key) => key.frame), way });
}
</script>

<template>
  <ToolStrip label="Path">
    <template v-if="!selection.thing"
      ><span>Pick an object first, then click in the picture to draw its path.</span></template
    >
    <template v-else-if="!keys.length">
      <span>{{ selection.thing.name }} has no path yet: click in the picture, point after point.</span>
      <button
        v-if="canJoin"
        class="chip"
        title="Join the keys of x and y into a path; the motion stays the same"
        @click="make({ edit: 'join-path', object })"
      >
        Join x and y
      </button>
    </template>
    <template v-else>
      <strong>{{ picked ? `${meant.length} ${meant.length === 1 ? "point" : "points"}` : "all points" }}</strong>
      <div class="ways" role="radiogroup" aria-label="Way">
        <button
          v-for="one in WAYS"
          :key="one.way"
          role="radio"
          :aria-checked="current === one.way"
          :class="{ on: current === one.way }"
          :title="one.about"
          @click="setWay(one.way)"
        >
          {{ one.says }}
        </button>
      </div>
      <button class="chip" title="Turn sharply at these points" @click="setCorner(meant, 'sharp')">Sharp</button>
      <button class="chip" title="Round these points smoothly" @click="setCorner(meant, 'smooth')">Smooth</button>
      <PopUp v-if="splined" :width="200" placement="bottom">
        <template #reference
          ><button class="chip" title="Tension, continuity and bias of the spline">Bend…</button></template
        >
        <BendFields channel="path" :keys="keys" />
      </PopUp>
      <button
        class="chip"
        :disabled="keys.length < 3"
        title="Space the points in time so that it keeps one speed along its way"
        @click="make({ edit: 'even-speed', object, channels: ['path'] })"
      >
        Even speed
      </button>
      <button
        class="chip"
        title="Mirror the path, left to right"
        aria-label="Flip the path left to right"
        @click="make({ edit: 'flip', object, axis: 'x', what: 'way' })"
      >
        ↔
      </button>
      <button
        class="chip"
        title="Mirror the path, top to bottom"
        aria-label="Flip the path top to bottom"
        @click="make({ edit: 'flip', object, axis: 'y', what: 'way' })"
      >
        ↕
      </button>
      <button
        class="chip"
        title="Turn the path into keys of x and y; the motion stays"
        aria-label="Split into x and y"
        @click="make({ edit: 'split-path', object })"
      >
        Split
      </button>
    </template>
  </ToolStrip>
</template>
