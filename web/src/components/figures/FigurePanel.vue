<script setup lang="ts">
/**
 * How the picked figure walks: a gait to begin with, what it walks on, on the spot or under way; its parts and joints.
 */
import { computed, ref, watch } from "vue";
import { isShape } from "@/api/kinds";
import NumberField from "@/components/common/NumberField.vue";
import GaitDialog from "@/components/figures/GaitDialog.vue";
import PartsDialog from "@/components/figures/PartsDialog.vue";
import { useFigure } from "@/composables/useFigure";
import { usePlayback } from "@/stores/playback";
import { useScene } from "@/stores/scene";
import { useSelection } from "@/stores/selection";
import { useSounds } from "@/stores/sounds";

const scene = useScene();
const selection = useSelection();
const playback = usePlayback();
const sounds = useSounds();
const one = useFigure();
const [tuning, hanging, freezing] = [ref(false), ref(false), ref(false)];
const wrong = ref("");
const [first, last] = [ref(0), ref(24)];

const grounds = computed(() =>
  scene.objects.filter((thing) => isShape(thing) && !thing.bone && thing.parent !== one.figure.value?.id).reverse(),
);
const treadmill = computed(() => one.number("treadmill"));

/** Whether it has a gait and nothing to walk for: one pose of each leg, all the time. */
const standing = computed(() => {
  const steps =
    one.figure.value && one.gait.value?.on ? scene.motion?.objects.get(one.figure.value.id)?.steps : undefined;
  return (
    steps !== undefined &&
    Object.keys(steps.down).length > 0 &&
    Object.values(steps.down).every((spans) => spans.length === 1)
  );
});
async function attempt(answer: Promise<string | null | undefined>): Promise<boolean> {
  wrong.value = (await answer) ?? "";
  return !wrong.value;
}
watch(
  () => one.figure.value?.id,
  () => (wrong.value = ""),
);

/** Begin on the spot with as many frames as go evenly into the scene, near a second. */
function spot(on: boolean): void {
  void attempt(one.set("treadmill", on ? Math.round(playback.fps) : null));
}
function beginFreezing(): void {
  [first.value, last.value] = [playback.from, playback.to];
  freezing.value = true;
}
async function freeze(): Promise<void> {
  if (await attempt(one.freeze(first.value, last.value))) freezing.value = false;
}
</script>

<template>
  <div v-if="one.figure.value" class="figure" role="group" :aria-label="`Gait of ${one.figure.value.name}`">
    <div class="head">
      <h3>{{ one.gait.value ? "Gait" : "Let it walk" }}</h3>
      <span class="tools">
        <button
          v-if="one.gait.value"
          class="chip small"
          title="All settings of the gait, with sliders and keys"
          @click="tuning = true"
        >
          Tune…
        </button>
        <button class="chip small" title="Which object is attached to which bone" @click="hanging = true">
          Parts…
        </button>
      </span>
    </div>
    <div class="gaits" role="group" aria-label="Ready-made gaits">
      <button
        v-for="gait in one.gaits.value"
        :key="gait.name"
        class="chip small"
        :title="`${gait.about} Where settings have keys, it is keyed at frame ${playback.frame}.`"
        @click="attempt(one.choose(gait.name))"
      >
        {{ gait.label }}
      </button>
      <p v-if="!one.gaits.value.length">This figure has no legs, so it cannot walk.</p>
    </div>
    <p v-if="standing" class="hint">
      The figure stands still: key Travel here, go to another frame and move it, and it walks there. Or make it walk in
      place.
    </p>
    <template v-if="one.gait.value">
      <label class="line"
        >on
        <select
          aria-label="Ground"
          :value="one.word('ground')"
          :disabled="treadmill !== null"
          title="What it walks on"
          @change="attempt(one.set('ground', ($event.target as HTMLSelectElement).value || null))"
        >
          <option value="">its own path</option>
          <option v-for="thing in grounds" :key="thing.id" :value="thing.id">{{ thing.name }}</option>
        </select>
      </label>
      <label class="line check" title="Walking back it faces back, instead of going backwards"
        ><input
          type="checkbox"
          :checked="one.word('facing') === 'the way it goes'"
          @change="attempt(one.set('facing', ($event.target as HTMLInputElement).checked ? 'the way it goes' : null))"
        />
        faces the direction of travel</label
      >
      <div class="line">
        <label class="check" title="Treadmill: one cycle in the given number of frames, for loops"
          ><input
            type="checkbox"
            :checked="treadmill !== null"
            @change="spot(($event.target as HTMLInputElement).checked)"
          />
          on the spot</label
        >
        <NumberField
          v-if="treadmill !== null"
          label="Frames of a cycle"
          :value="treadmill"
          unit="frames"
          :step="1"
          :low="2"
          :high="1000"
          :digits="0"
          @change="attempt(one.set('treadmill', $event))"
        />
      </div>
      <div class="line">
        <button
          class="chip small"
          title="A foot is set down on every beat: of markers, an even beat, or a sound (Alt+B)"
          @click="sounds.lay()"
        >
          Steps on beats…
        </button>
        <button
          v-if="treadmill !== null"
          class="chip small"
          title="Travels with the same cycle: keys x so that the figure moves one stride per cycle, forever"
          @click="attempt(one.travel(treadmill, false))"
        >
          Repeat this cycle
        </button>
        <button
          v-else
          class="chip small"
          title="Turns what the gait does in some frames into keys of every joint; outside of them it goes on"
          @click="beginFreezing"
        >
          Freeze frames…
        </button>
      </div>
      <div v-if="freezing" class="line freeze" role="group" aria-label="Freeze frames">
        <NumberField
          label="Freeze from"
          :value="first"
          :step="1"
          :low="0"
          :high="playback.last"
          :digits="0"
          @change="first = $event"
        />
        to
        <NumberField
          label="Freeze to"
          :value="last"
          :step="1"
          :low="0"
          :high="playback.last"
          :digits="0"
          @change="last = $event"
        />
        <button class="primary small" @click="freeze">Freeze</button>
        <button class="chip small" aria-label="Do not freeze" @click="freezing = false">×</button>
      </div>
    </template>
    <p v-if="wrong" class="wrong" role="alert">{{ wrong }}</p>
    <GaitDialog v-if="tuning && one.gait.value" v-model="tuning" :thing="one.figure.value" :rule="one.gait.value" />
    <PartsDialog v-if="hanging" v-model="hanging" :thing="one.figure.value" />
    <p v-if="selection.tool === 'joints'" class="hint">
      Drag a joint of the dashed figure to change the length or direction of its bones; attached parts follow.
    </p>
  </div>
</template>

<style scoped>
.figure {
  border-bottom: 1px solid var(--line);
  padding: 2px 12px 9px 14px;
  display: grid;
  gap: 6px;
  background: var(--paper-2);
}
.head {
  display: flex;
  justify-content: space-between;
  align-items: center;
  min-height: 28px;
}
h3 {
  font-size: 13px;
  margin: 0;
}
.tools,
.gaits {
  display: flex;
  flex-wrap: wrap;
  gap: 4px;
}
.line {
  display: flex;
  align-items: center;
  gap: 7px;
  font-size: 12.5px;
}
.check {
  display: flex;
  gap: 6px;
  align-items: center;
  cursor: pointer;
  white-space: nowrap;
}
select {
  flex: 1;
  min-width: 0;
}
.freeze .primary {
  padding: 2px 10px;
}
p {
  margin: 0;
  font-size: 12px;
  color: var(--ink-2);
}
.wrong {
  color: #a32145;
  font-weight: 600;
}
</style>
