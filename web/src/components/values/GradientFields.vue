<script setup lang="ts">
/** What colours the fill and the line of a shape: one colour, or several that go over into each other. */
import { computed } from "vue";
import { gradientOf, MOST_STOPS, PAINTED, type Painted, partOf } from "@/api/gradients";
import type { ShapeThing } from "@/api/types";
import { chosenIn } from "@/components/common/chosen";
import { usePlayback } from "@/stores/playback";
import { useScene } from "@/stores/scene";
import { useSelection } from "@/stores/selection";

const props = defineProps<{ thing: ShapeThing; lined: boolean }>();
const scene = useScene();
const selection = useSelection();
const playback = usePlayback();

const parts = computed(() => PAINTED.filter((of) => of === "fill" || props.lined || props.thing.paints.stroke));
/** The stop whose row is picked. */
const picked = computed(() => (selection.channel ? partOf(selection.channel.name) : null));
const stopsOf = (of: Painted): number => gradientOf(props.thing, of)?.stops ?? 0;

async function choose(of: Painted, kind: string): Promise<void> {
  const wanted = kind === "linear" || kind === "radial" ? kind : null;
  await scene.edit([{ edit: "set-gradient", id: props.thing.id, of, kind: wanted, frame: playback.textFrame }]);
  // Its ends can be taken hold of in the picture as long as one of its rows is picked.
  if (wanted) selection.pickRow(of === "fill" ? "From" : "Line from");
}

async function add(of: Painted): Promise<void> {
  // In the middle of the stop that is picked and the next, or of the whole.
  const at = picked.value?.of === of ? picked.value.stop : null;
  const place = at === null ? 0.5 : Math.min(1, (at - 0.5) / Math.max(1, stopsOf(of) - 1));
  await scene.edit([{ edit: "add-stop", id: props.thing.id, of, place, frame: playback.textFrame }]);
}

function takeOut(): void {
  const { of, stop } = picked.value ?? {};
  if (of && stop) void scene.edit([{ edit: "remove-stop", id: props.thing.id, of, stop }]);
}
</script>

<template>
  <div class="gradients" role="group" aria-label="Colour stops">
    <template v-for="of in parts" :key="of">
      <label
        :title="
          of === 'fill'
            ? 'What colours the inside: one colour, or several along a line or from a middle outward'
            : 'What colours the line'
        "
        >{{ of === "fill" ? "fill" : "line" }}
        <select
          class="choice"
          :aria-label="of === 'fill' ? 'Colours of the fill' : 'Colours of the line'"
          :value="gradientOf(thing, of)?.kind ?? 'plain'"
          @change="choose(of, chosenIn($event))"
        >
          <option value="plain">one colour</option>
          <option value="linear">along a line</option>
          <option value="radial">from a middle</option>
        </select></label
      >
      <button
        v-if="gradientOf(thing, of)"
        class="chip small"
        :disabled="stopsOf(of) >= MOST_STOPS"
        :title="
          stopsOf(of) >= MOST_STOPS
            ? `A gradient has at most ${MOST_STOPS} stops`
            : 'Another colour on the way; or double-click the line in the picture'
        "
        @click="add(of)"
      >
        Add a stop
      </button>
      <button
        v-if="picked?.of === of && picked.stop && stopsOf(of) > 2"
        class="chip small"
        title="Take the picked stop out, with its keys"
        @click="takeOut"
      >
        Take out stop {{ picked.stop }}
      </button>
    </template>
  </div>
</template>

<style scoped>
.gradients {
  display: flex;
  flex-wrap: wrap;
  gap: 6px 8px;
  margin: 8px 14px 0;
  font-size: 12px;
  align-items: center;
}
label {
  display: flex;
  align-items: center;
  gap: 5px;
}
</style>
