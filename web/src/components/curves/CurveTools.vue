<script setup lang="ts">
/** What can be done to all stretches of the chosen curves, and how curves are shown. */
import type { Ease, Edit } from "@/api/types";
import type { KeyedCurve } from "@/composables/curves/useKeyedCurves";
import { useScene } from "@/stores/scene";
import { useSelection } from "@/stores/selection";

const props = defineProps<{ chosen: readonly KeyedCurve[] }>();
const emit = defineEmits<{ frame: [] }>();
/** Whether each curve has its own height. */
const normalised = defineModel<boolean>("normalised", { required: true });
const scene = useScene();
const selection = useSelection();

/** Make every stretch of the chosen channels of one kind. */
async function shape(ease: Ease): Promise<void> {
  const thing = selection.thing;
  if (!thing) return;
  const edits = props.chosen
    .filter((one) => one.isNumber && one.keys.length > 1)
    .map((one): Edit => ({
      edit: "set-ease",
      object: thing.id,
      channel: one.words.name,
      frames: one.keys.slice(0, -1).map((key) => key.frame),
      ease,
    }));
  await scene.edit(edits);
}
</script>

<template>
  <div class="tools">
    <template v-if="chosen.some((one) => one.isNumber)">
      <button
        class="chip"
        title="Shape every segment by handles; Alt moves one handle of a pair alone"
        @click="shape('handles')"
      >
        Handles
      </button>
      <button
        class="chip"
        title="One smooth curve through all keys, with tension, continuity and bias"
        @click="shape('spline')"
      >
        Spline
      </button>
      <button class="chip" title="Straight from key to key" @click="shape('linear')">Even</button>
    </template>
    <button
      class="chip"
      role="switch"
      :aria-checked="normalised"
      :class="{ lit: normalised }"
      title="On: every curve to its own height. Off: all to one true scale"
      @click="normalised = !normalised"
    >
      own heights
    </button>
    <button class="chip" title="Show the picked keys, or all keys, as large as they can be" @click="emit('frame')">
      Show keys
    </button>
  </div>
</template>

<style scoped>
.tools {
  display: flex;
  flex-wrap: wrap;
  gap: 4px;
  padding: 5px 2px;
}
.tools .chip {
  padding: 1px 8px;
  font-size: 12px;
}
.lit {
  background: var(--travel-pale);
  border-color: var(--travel);
  color: var(--travel);
}
</style>
