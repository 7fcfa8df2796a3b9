<script setup lang="ts">
/** What can be done with an outline, shown under its tools: drawing a new one, or editing points. */
import { computed, ref, watch } from "vue";
import type { Drawing } from "@/composables/picture/useDrawing";
import type { OutlineEdit } from "@/composables/outline/useOutlineEdit";
import { hasPoints } from "@/composables/outline/useOutlinePoints";
import ToolStrip from "@/components/picture/ToolStrip.vue";
import { useOutline } from "@/stores/outline";
import { useScene } from "@/stores/scene";
import { usePlayback } from "@/stores/playback";
import { useSelection } from "@/stores/selection";

const props = defineProps<{ edit: OutlineEdit; drawing: Drawing }>();
const outline = useOutline();
const selection = useSelection();
const scene = useScene();
const playback = usePlayback();

const count = computed(() => props.edit.list.value.length);
const fitted = computed(() => props.edit.found.value?.tolerance ?? null);
/** The tolerance while its slider is dragged. */
const fit = ref(2);
watch(fitted, (value) => value !== null && (fit.value = value), { immediate: true });
const { actions } = props.edit;
const chosen = computed(() => props.edit.found.value?.meetings?.chosen ?? null);

/** An outline of what is drawn in another way, to edit its points. */
async function outlineIt(): Promise<void> {
  if (selection.object) await scene.edit([{ edit: "make-outline", id: selection.object.id, frame: playback.frame }]);
}
</script>

<template>
  <ToolStrip v-if="selection.tool === 'draw'" label="Draw an outline">
    <div class="ways" role="radiogroup" aria-label="How to draw">
      <button
        role="radio"
        :aria-checked="!outline.freely"
        :class="{ on: !outline.freely }"
        title="Click for corners, drag for smooth points, close on the first"
        @click="outline.freely = false"
      >
        By points
      </button>
      <button
        role="radio"
        :aria-checked="outline.freely"
        :class="{ on: outline.freely }"
        title="Draw freely; the line is fitted with few points. Hold Alt to draw freely once"
        @click="outline.freely = true"
      >
        Freely
      </button>
    </div>
    <template v-if="outline.freely && !outline.drawn.length">
      <label class="fit"
        ><span>within</span
        ><input
          v-model.number="outline.tolerance"
          type="range"
          min="0.5"
          max="20"
          step="0.5"
          aria-label="Tolerance"
        /><b>{{ outline.tolerance }} px</b></label
      >
      <span>Draw with the button held down. End at the start to close the outline.</span>
    </template>
    <template v-else-if="outline.drawn.length">
      <strong>{{ outline.drawn.length }} {{ outline.drawn.length === 1 ? "point" : "points" }}</strong>
      <button
        class="chip"
        title="Keep it open (Enter)"
        :disabled="outline.drawn.length < 2"
        @click="drawing.finish(false)"
      >
        Done
      </button>
      <button
        class="chip"
        title="Close it (click on the first point)"
        :disabled="outline.drawn.length < 2"
        @click="drawing.finish(true)"
      >
        Close
      </button>
      <button class="chip" title="Take the last point back (Backspace)" @click="drawing.back()">One back</button>
      <button class="chip" title="Draw nothing (Escape)" @click="drawing.abandon()">Drop it</button>
    </template>
    <span v-else>Click for corners, drag for smooth points, close on the first.</span>
  </ToolStrip>
  <ToolStrip v-else label="Points of the outline">
    <span v-if="!selection.object">Select a drawn object to edit its points.</span>
    <template v-else-if="!hasPoints(selection.object)">
      <span>{{ selection.object.name }} has no points of its own.</span>
      <button
        v-if="selection.object.kind === 'shape'"
        class="chip"
        title="Turn it into an outline that looks the same, to be changed point by point"
        @click="outlineIt"
      >
        Convert to an outline
      </button>
    </template>
    <template v-else>
      <strong>{{ count ? `${count} ${count === 1 ? "point" : "points"}` : "no point picked" }}</strong>
      <template v-if="count">
        <button class="chip" title="Corners, without handles" @click="actions.corner()">Corner</button>
        <button class="chip" title="Smooth, with handles in one line" @click="actions.smooth()">Smooth</button>
        <button class="chip" title="Take them out (Delete)" @click="actions.remove()">Take out</button>
        <button v-if="count === 1" class="chip" title="Cut the outline open here" @click="actions.cut()">Cut</button>
        <button v-if="count === 1" class="chip" title="Make this the first point" @click="actions.first()">
          Begin here
        </button>
        <button v-if="edit.ends.value.length === 2" class="chip" title="Join these two ends" @click="actions.join()">
          Join
        </button>
      </template>
      <button v-else class="chip" title="Pick every point" @click="actions.pickAll()">All</button>
      <button class="chip" title="Reverse the outline's direction" @click="actions.reverse()">Reverse</button>
      <button v-if="chosen" class="chip" title="Match points automatically again" @click="actions.forgetMeeting()">
        Match automatically
      </button>
      <label v-if="fitted !== null" class="fit" title="Largest distance between the line and your stroke"
        ><span>within</span
        ><input
          v-model.number="fit"
          type="range"
          min="0.5"
          max="20"
          step="0.5"
          aria-label="Tolerance"
          @change="actions.refit(fit)"
        /><b>{{ fit }} px</b></label
      >
    </template>
  </ToolStrip>
</template>

<style scoped>
.fit {
  display: flex;
  align-items: center;
  gap: 5px;
}
.fit input {
  accent-color: var(--travel);
  width: 90px;
}
.fit b {
  font-family: var(--mono);
  font-weight: 400;
  min-width: 44px;
}
</style>
