<script setup lang="ts">
/** The options of an export: only those that change something in what is chosen. */
import { computed } from "vue";
import type { ExportOptions } from "@/api/types";
import NumberField from "@/components/common/NumberField.vue";
import ColourField from "@/components/values/ColourField.vue";
import { useFigure } from "@/composables/useFigure";
import { isAudible } from "@/geometry/hearing";
import { rgbaOf } from "@/geometry/colour";
import { usePlayback } from "@/stores/playback";
import { useScene } from "@/stores/scene";

const props = defineProps<{ takes: ReadonlySet<string>; single: boolean; opaque: boolean; data: boolean }>();
const options = defineModel<ExportOptions>({ required: true });
const name = defineModel<string>("name", { required: true });
const scene = useScene();
const playback = usePlayback();
const figure = useFigure();

const SHARES = [1, 0.5, 0.25, 2];
const sizes = computed(() =>
  SHARES.map((share) => ({
    share,
    says: (scene.head?.size ?? [0, 0]).map((side) => Math.round(side * share)).join(" × "),
  })),
);
/** Pictures are made up to eight times as large as the scene, and no side longer than a picture can have. */
const widest = computed(() => Math.min(8192, 8 * (scene.head?.size[0] ?? 0)));
const width = computed(() => Math.round((scene.head?.size[0] ?? 0) * options.value.scale));
const last = computed(() => options.value.last ?? playback.last);
/** One cycle of the picked figure that walks on the spot, in whole frames; null where it is missing. */
const cycle = computed(() => {
  const frames = figure.number("treadmill");
  return frames === null ? null : Math.min(Math.round(frames), playback.last + 1);
});
const needsUnder = computed(
  () =>
    props.opaque &&
    scene.head !== null &&
    (options.value.background === "none" ||
      rgbaOf(scene.head.background)[3] < 1 ||
      isSeeThrough(options.value.background)),
);
const isSeeThrough = (colour: string): boolean => colour.startsWith("#") && rgbaOf(colour)[3] < 1;
const hasColour = computed(() => options.value.background.startsWith("#"));
const blurs = computed(() => typeof options.value.blur === "number");

/** Whether there is anything to hear. */
const heard = computed(() => (scene.head?.sounds ?? []).some(isAudible));
const set = (changes: Partial<ExportOptions>): void => void Object.assign(options.value, changes);
const between = (first: number, to: number): void => set({ first, last: to });
</script>

<template>
  <div class="settings">
    <fieldset v-if="takes.has('size')">
      <legend>Size</legend>
      <label v-for="size in sizes" :key="size.share" class="chip small" :class="{ on: options.scale === size.share }"
        ><input
          type="radio"
          name="size"
          class="sr-only"
          :checked="options.scale === size.share"
          @change="set({ scale: size.share })"
        />{{ size.says }}</label
      >
      <NumberField
        label="Width in px; the height follows"
        unit="px"
        :value="width"
        :low="1"
        :high="widest"
        :digits="0"
        @change="set({ scale: $event / (scene.head?.size[0] ?? 1) })"
      />
    </fieldset>
    <fieldset v-if="single">
      <legend>Frame</legend>
      <NumberField
        label="Frame to take"
        :value="options.first ?? 0"
        :low="0"
        :high="playback.last"
        :digits="0"
        @change="between($event, $event)"
      />
      <button class="chip small" @click="between(Math.round(playback.frame), Math.round(playback.frame))">
        at the playhead
      </button>
    </fieldset>
    <fieldset v-else-if="!data || takes.has('every')">
      <legend>Frames</legend>
      <NumberField
        label="First frame to take"
        :value="options.first ?? 0"
        :low="0"
        :high="playback.last"
        :digits="0"
        @change="set({ first: $event })"
      />
      to
      <NumberField
        label="Last frame to take"
        :value="last"
        :low="0"
        :high="playback.last"
        :digits="0"
        @change="set({ last: $event })"
      />
      <button
        class="chip small"
        :class="{ on: !options.first && last === playback.last }"
        @click="between(0, playback.last)"
      >
        all
      </button>
      <button
        v-if="playback.from > 0 || playback.to < playback.last"
        class="chip small"
        @click="between(playback.from, playback.to)"
      >
        play range
      </button>
      <button
        v-if="cycle"
        class="chip small"
        :class="{ on: !options.first && last === cycle - 1 }"
        title="One cycle of the picked figure's walk on the spot"
        @click="between(0, cycle - 1)"
      >
        one cycle
      </button>
    </fieldset>
    <fieldset v-if="takes.has('fps')">
      <legend>Pace</legend>
      <NumberField
        label="Pictures a second"
        unit="a second"
        :value="options.fps ?? playback.fps"
        :low="1"
        :high="120"
        :digits="2"
        @change="set({ fps: $event === playback.fps ? null : $event })"
      />
      <button class="chip small" :class="{ on: options.fps === null }" @click="set({ fps: null })">as the scene</button>
    </fieldset>
    <fieldset v-if="takes.has('background')">
      <legend>Background</legend>
      <button
        v-for="one in [
          ['usual', 'usual', 'The scene’s own; none in a flipbook, whose pictures are laid over others'],
          ['own', 'the scene’s', 'As it is in the scene'],
          ['none', 'none', 'Seen through where nothing is drawn'],
        ]"
        :key="one[0]"
        class="chip small"
        :class="{ on: options.background === one[0] }"
        :title="one[2]"
        @click="set({ background: one[0] })"
      >
        {{ one[1] }}
      </button>
      <ColourField
        label="A colour behind everything"
        :rgba="rgbaOf(hasColour ? options.background : (scene.head?.background ?? '#FFFFFF'))"
        @change="set({ background: $event })"
      />
    </fieldset>
    <fieldset v-if="needsUnder">
      <legend>Under it</legend>
      <ColourField
        label="Colour under the background"
        :rgba="rgbaOf(options.under)"
        @change="set({ under: $event.slice(0, 7) })"
      />
      <p>This format has no transparency; the background colour is used instead.</p>
    </fieldset>
    <fieldset v-if="takes.has('quality')">
      <legend>Quality</legend>
      <button
        v-for="one in ['small', 'good', 'best'] as const"
        :key="one"
        class="chip small"
        :class="{ on: options.quality === one }"
        @click="set({ quality: one })"
      >
        {{ one === "small" ? "small file" : one }}
      </button>
    </fieldset>
    <fieldset v-if="takes.has('sound') && heard">
      <legend>Sound</legend>
      <button
        v-for="one in [true, false]"
        :key="String(one)"
        class="chip small"
        :class="{ on: options.sound === one }"
        :title="one ? 'Include sound' : 'A silent film'"
        @click="set({ sound: one })"
      >
        {{ one ? "with sound" : "silent" }}
      </button>
    </fieldset>
    <fieldset v-if="takes.has('dither')">
      <legend>Mixed colours</legend>
      <button
        v-for="one in [
          ['diffused', 'Soft grain: best for blends'],
          ['ordered', 'An even pattern: smaller files that do not flicker'],
          ['none', 'Flat areas: smallest, for plain shapes'],
        ] as const"
        :key="one[0]"
        class="chip small"
        :class="{ on: options.dither === one[0] }"
        :title="one[1]"
        @click="set({ dither: one[0] })"
      >
        {{ one[0] }}
      </button>
    </fieldset>
    <fieldset v-if="takes.has('loops')">
      <legend>Plays</legend>
      <button class="chip small" :class="{ on: options.loops === 0 }" @click="set({ loops: 0 })">for ever</button>
      <NumberField
        label="How often it plays"
        unit="times"
        :value="options.loops || 1"
        :low="1"
        :high="1000"
        :digits="0"
        :class="{ pale: options.loops === 0 }"
        @change="set({ loops: $event })"
      />
      <button v-if="options.loops === 0" class="chip small" @click="set({ loops: 1 })">once</button>
    </fieldset>
    <fieldset v-if="takes.has('blur')">
      <legend>Motion blur</legend>
      <button class="chip small" :class="{ on: options.blur === 'own' }" @click="set({ blur: 'own' })">
        {{ scene.head?.blur ? "as the scene" : "none, as the scene" }}
      </button>
      <button
        v-if="scene.head?.blur"
        class="chip small"
        :class="{ on: options.blur === 'off' }"
        @click="set({ blur: 'off' })"
      >
        off
      </button>
      <NumberField
        label="Moments that make a picture"
        unit="moments"
        :value="blurs ? Number(options.blur) : (scene.head?.blur?.samples ?? 16)"
        :low="2"
        :high="64"
        :digits="0"
        :class="{ pale: !blurs }"
        @change="set({ blur: $event })"
      />
      <button v-if="!blurs && !scene.head?.blur" class="chip small" @click="set({ blur: 16 })">on</button>
    </fieldset>
    <fieldset v-if="takes.has('columns')">
      <legend>In a row</legend>
      <NumberField
        label="Pictures in a row"
        :value="options.columns"
        :low="1"
        :high="12"
        :digits="0"
        @change="set({ columns: $event })"
      />
    </fieldset>
    <fieldset v-if="takes.has('every')">
      <legend>Every</legend>
      <NumberField
        label="Frames from one row or picture to the next"
        unit="frames"
        :value="options.every"
        :low="0.01"
        :high="1000"
        :digits="2"
        @change="set({ every: $event })"
      />
    </fieldset>
    <fieldset v-if="takes.has('tolerance')">
      <legend>Exact to</legend>
      <NumberField
        label="Largest allowed error in position (px)"
        unit="px"
        hint="Smaller values are more exact and make larger files."
        :value="options.tolerance"
        :low="0.01"
        :high="2"
        :step="0.05"
        :digits="2"
        @change="set({ tolerance: $event })"
      />
    </fieldset>
    <fieldset>
      <legend>Name</legend>
      <input
        v-model.trim="name"
        class="name"
        maxlength="80"
        :placeholder="scene.head?.name"
        aria-label="Name of the file"
        spellcheck="false"
      />
    </fieldset>
  </div>
</template>

<style scoped>
.settings {
  display: grid;
  gap: 7px;
  align-content: start;
}
fieldset {
  border: 0;
  padding: 0;
  margin: 0;
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 5px;
  min-height: 26px;
}
legend {
  float: left;
  width: 96px;
  font: 600 12.5px var(--heading);
  padding: 0;
}
fieldset :deep(.field) {
  max-width: 104px;
}
.pale {
  filter: saturate(0.3);
}
.chip.on {
  border-color: var(--travel);
  background: var(--travel-pale);
}
.chip:focus-within {
  outline: 2px solid var(--look);
}
p {
  margin: 0;
  color: var(--ink-2);
  font-size: 12px;
  flex: 1;
}
.name {
  font: inherit;
  flex: 1;
  min-width: 0;
  padding: 3px 8px;
  border: 1px solid var(--line);
  border-radius: var(--radius-s);
  background: var(--paper);
}
</style>
