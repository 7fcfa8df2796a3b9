<script setup lang="ts">
/** The range and the unit of a dial, and letting objects take it. */
import { computed, ref, watch } from "vue";
import { FOLLOWS, isColourDial } from "@/api/dials";
import { numberAt } from "@/api/motion";
import type { Dial, DialThing, Follow } from "@/api/types";
import NumberField from "@/components/common/NumberField.vue";
import { useDials } from "@/composables/useDials";
import { useLinking } from "@/stores/linking";
import { usePlayback } from "@/stores/playback";
import { useScene } from "@/stores/scene";
import { useSounds } from "@/stores/sounds";

const props = defineProps<{ thing: DialThing }>();
const dials = useDials();
const linking = useLinking();
const sounds = useSounds();
const scene = useScene();
const playback = usePlayback();
const wrong = ref("");
watch(
  () => props.thing.id,
  () => (wrong.value = ""),
);
const dial = computed(() => props.thing.dial);
const set = async (change: Partial<Dial>): Promise<void> =>
  void (wrong.value = (await dials.set(props.thing, change)) ?? "");
const heard = computed(() => sounds.isHeard(props.thing));
/** What it is at the frame, as the sound has it. */
const now = computed(() => {
  const rows = scene.motion?.objects.get(props.thing.id)?.channels.value;
  return rows ? Number((numberAt(rows, playback.textFrame) * shown.value).toFixed(2)) : 0;
});
const followBy = (change: Partial<Follow>): Promise<void> =>
  set({ follows: { ...FOLLOWS, ...dial.value.follows, ...change } as Follow });
const followSound = (id: string): Promise<void> => (id ? followBy({ sound: id }) : set({ follows: null }));
const shown = computed(() => (dial.value.unit === "%" ? 100 : 1));
</script>

<template>
  <div class="dial">
    <p v-if="heard" class="says">
      {{ now }} now: it goes up and down with {{ sounds.list.find((one) => one.id === dial.follows?.sound)?.name }}.
    </p>
    <div v-if="!isColourDial(dial)" class="grid">
      <template v-for="end in ['low', 'high'] as const" :key="end">
        <span>{{ end === "low" ? "from" : "to" }}</span>
        <NumberField
          v-if="dial[end] !== null && dial[end] !== undefined"
          :label="end === 'low' ? 'Least' : 'Most'"
          :value="dial[end]!"
          :shown="shown"
          :digits="2"
          @change="set({ [end]: $event })"
        />
        <button
          v-else
          class="chip small"
          title="No limit; click to set one"
          @click="set({ [end]: end === 'low' ? 0 : Math.max(1, (dial.low ?? 0) + 1) })"
        >
          no limit
        </button>
        <button
          class="quiet"
          :style="{ visibility: dial[end] !== null && dial[end] !== undefined ? 'visible' : 'hidden' }"
          :aria-label="`Take the ${end === 'low' ? 'lower' : 'upper'} limit away`"
          title="No limit"
          @click="set({ [end]: null })"
        >
          ×
        </button>
      </template>
      <span>unit</span>
      <select
        aria-label="Unit"
        :value="dial.unit"
        @change="set({ unit: ($event.target as HTMLSelectElement).value as Dial['unit'] })"
      >
        <option value="">none</option>
        <option>%</option>
        <option>px</option>
        <option>°</option>
      </select>
    </div>
    <div v-if="!isColourDial(dial) && (sounds.list.length || dial.follows)" class="grid">
      <span>follows</span>
      <select
        class="wide"
        aria-label="Sound it follows"
        :value="dial.follows?.sound ?? ''"
        title="The dial follows a sound's loudness instead of its keys"
        @change="followSound(($event.target as HTMLSelectElement).value)"
      >
        <option value="">its keys</option>
        <option v-for="one in sounds.list" :key="one.id" :value="one.id">{{ one.name }}</option>
        <option v-if="dial.follows && !heard" :value="dial.follows.sound">a deleted sound</option>
      </select>
      <template v-if="dial.follows">
        <span>in</span>
        <select
          class="wide"
          aria-label="Band it follows"
          :value="dial.follows.band"
          title="Low: drums and bass. Middle: voices. High: hiss and bells"
          @change="followBy({ band: ($event.target as HTMLSelectElement).value as Follow['band'] })"
        >
          <option value="all">all of it</option>
          <option value="low">low sounds</option>
          <option value="middle">middle sounds</option>
          <option value="high">high sounds</option>
        </select>
        <span>rises</span>
        <NumberField
          label="Seconds to rise"
          :value="dial.follows.attack"
          unit="s"
          :step="0.01"
          :low="0"
          :high="10"
          :digits="2"
          @change="followBy({ attack: $event })"
        />
        <span />
        <span>falls</span>
        <NumberField
          label="Seconds to fall"
          :value="dial.follows.release"
          unit="s"
          :step="0.01"
          :low="0"
          :high="10"
          :digits="2"
          @change="followBy({ release: $event })"
        />
      </template>
    </div>
    <p v-if="wrong" class="wrong" role="alert">{{ wrong }}</p>
    <button class="chip" @click="linking.takers = thing.id">Link objects to it…</button>
  </div>
</template>

<style scoped>
.dial {
  margin: 6px 14px;
  display: grid;
  gap: 10px;
  justify-items: start;
}
.grid {
  display: grid;
  grid-template-columns: 46px 110px 26px;
  gap: 5px 8px;
  align-items: center;
}
.says {
  margin: 0;
  font-size: 12.5px;
}
.wide {
  grid-column: span 2;
}
.chip.small {
  justify-self: start;
  color: var(--ink-2);
}
.wrong {
  margin: 0;
  color: #a32145;
  font-weight: 600;
  font-size: 12px;
}
</style>
