<script setup lang="ts">
/** What can be done with the picked leaves, shown while some are picked. */
import { computed, ref } from "vue";
import NumberField from "@/components/common/NumberField.vue";
import PopUp from "@/components/common/PopUp.vue";
import { useLeafActions } from "@/composables/keys/useLeafActions";
import { useMessages } from "@/stores/messages";
import { usePicks } from "@/stores/picks";
import { useSelection } from "@/stores/selection";

const selection = useSelection();
const picks = usePicks();
const messages = useMessages();
const leaf = useLeafActions();
const length = ref(12);
const push = ref(true);
const turns = ref(1);
const clockwise = ref(true);
const turnable = computed(
  () => leaf.frames.value.length > 0 && leaf.frames.value[0]! < (leaf.rowFrames.value.at(-1) ?? -Infinity),
);

function copy(): void {
  const count = leaf.copy();
  if (count)
    messages.info(
      `${count} ${count === 1 ? "key is" : "keys are"} copied. Pick an object, go to a frame, and paste (Ctrl+V; Ctrl+Shift+V asks how, and onto several).`,
    );
}
</script>

<template>
  <div v-if="selection.thing && picks.count" class="actions" role="toolbar" aria-label="Picked leaves">
    <strong>{{ picks.count }} {{ picks.count === 1 ? "key" : "keys" }}</strong>
    <button class="chip" title="Pick every leaf of this row (Ctrl+A)" @click="leaf.pickAll()">All of the row</button>
    <button
      class="chip"
      :disabled="leaf.frames.value.length < 2"
      title="Play this stretch backwards"
      @click="leaf.reverse()"
    >
      Reverse
    </button>
    <button
      class="chip"
      :disabled="leaf.frames.value.length < 3"
      title="Equal distances in time; the first and last stay"
      @click="leaf.spread()"
    >
      Spread evenly
    </button>
    <button
      class="chip"
      :disabled="leaf.rowFrames.value.length < 3"
      title="Space all keys of this row so that it keeps one speed along its way"
      @click="leaf.evenSpeed()"
    >
      Even speed
    </button>
    <PopUp :width="250" placement="top">
      <template #reference
        ><button class="chip" title="Stay on the value of the first picked leaf for some frames">
          Hold here…
        </button></template
      >
      <div class="hold">
        <NumberField
          label="Hold for how many frames"
          :value="length"
          unit="frames"
          :digits="0"
          :low="1"
          :high="20000"
          @change="length = Math.round($event)"
        />
        <label><input v-model="push" type="checkbox" /> push what follows</label>
        <button class="primary" @click="leaf.hold(leaf.frames.value[0]!, length, push)">
          Hold from {{ Number((leaf.frames.value[0] ?? 0).toFixed(2)) }}
        </button>
      </div>
    </PopUp>
    <PopUp v-if="selection.row?.name === 'Rotation'" :width="270" placement="top">
      <template #reference
        ><button
          class="chip"
          :disabled="!turnable"
          :title="
            turnable
              ? 'Number of full turns from the selected leaf to the next key'
              : 'Pick the leaf the turning should begin at, not the last one'
          "
        >
          Turn…
        </button></template
      >
      <div class="hold">
        <NumberField
          label="How many whole turns"
          :value="turns"
          unit="turns"
          :digits="0"
          :low="0"
          :high="10000"
          @change="turns = Math.round($event)"
        />
        <label><input v-model="clockwise" type="radio" name="sense" :value="true" /> clockwise</label>
        <label><input v-model="clockwise" type="radio" name="sense" :value="false" /> anticlockwise</label>
        <button class="primary" @click="leaf.turn(turns, clockwise)">
          Turn from {{ Number((leaf.frames.value[0] ?? 0).toFixed(2)) }}
        </button>
      </div>
    </PopUp>
    <button
      class="chip"
      :disabled="leaf.rowFrames.value.length < 2"
      title="Set the last key to the first key's value, so that the loop has no seam"
      @click="leaf.closeLoop()"
    >
      Close the loop
    </button>
    <button class="chip" title="Copy these keys (Ctrl+C)" @click="copy">Copy</button>
    <button
      v-if="leaf.copied.value"
      class="chip"
      title="Paste onto one object or several, replacing or merging, later from one to the next (Ctrl+Shift+V)"
      @click="leaf.pasting.value = true"
    >
      Paste…
    </button>
    <button class="chip" title="Delete these keys (Delete)" @click="leaf.remove()">Delete</button>
  </div>
</template>

<style scoped>
.actions {
  position: absolute;
  left: 50%;
  bottom: 8px;
  transform: translateX(-50%);
  display: flex;
  align-items: center;
  gap: 5px;
  background: var(--paper);
  border: 1px solid var(--line);
  border-radius: 99px;
  padding: 4px 6px 4px 14px;
  box-shadow: 0 4px 18px #5a4a2033;
  white-space: nowrap;
  z-index: 1;
}
.chip {
  padding: 2px 9px;
  font-size: 12px;
}
strong {
  font-size: 12px;
  margin-right: 4px;
}
.hold {
  display: grid;
  gap: 10px;
}
label {
  display: flex;
  gap: 6px;
  align-items: center;
}
</style>
