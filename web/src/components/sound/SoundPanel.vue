<script setup lang="ts">
/** What is heard with the scene, markers and the beat, and putting motion on them. */
import { computed, ref } from "vue";
import { still } from "@/api/channels";
import { FOLLOWS, isColourDial } from "@/api/dials";
import type { KeptSound } from "@/api/types";
import NumberField from "@/components/common/NumberField.vue";
import RenameField from "@/components/common/RenameField.vue";
import VineIcon from "@/components/common/VineIcon.vue";
import BeatFields from "@/components/sound/BeatFields.vue";
import { useBringIn } from "@/composables/bringing/useBringIn";
import { useDials } from "@/composables/useDials";
import { untilOf } from "@/geometry/hearing";
import { useHearing } from "@/stores/hearing";
import { usePlayback } from "@/stores/playback";
import { useScene } from "@/stores/scene";
import { useSounds } from "@/stores/sounds";

const scene = useScene();
const playback = usePlayback();
const sounds = useSounds();
const hearing = useHearing();
const bringing = useBringIn();
const adding = useDials();
const chooser = ref<HTMLInputElement>();
const renaming = ref<string | null>(null);

const isPicked = (one: KeptSound): boolean => sounds.picked?.id === one.id;
const facts = (one: KeptSound): string => {
  const pace = sounds.beats.get(one.id)?.minute;
  const long = `${(untilOf(one) - one.begin).toFixed(1)} s, frames ${one.first} to ${sounds.over(one)}`;
  return pace ? `${long} · about ${Math.round(pace)} beats a minute` : long;
};
const dials = computed(() => scene.dials.filter((one) => !isColourDial(one.dial)));

function choose(event: Event): void {
  const field = event.target as HTMLInputElement;
  void bringing.bring([...(field.files ?? [])]);
  field.value = "";
}
function rename(one: KeptSound, name: string | null): void {
  renaming.value = null;
  if (name) void sounds.change(one, { name });
}
/** A dial that follows a sound: channels that read it move with the loudness. */
const follow = (one: KeptSound): Promise<void> =>
  withDial({ name: `${one.name} level`, channel: still(0), follows: { ...FOLLOWS, sound: one.id } });
/** A dial for the loudness of a sound, to be keyed. */
const key = (one: KeptSound): Promise<void> =>
  withDial({ name: `${one.name} loudness`, unit: "%", channel: still(1) }, (dial) => [sounds.set(one, { dial })]);
async function withDial(...how: Parameters<typeof adding.make>): Promise<void> {
  if (await adding.make(...how)) sounds.open = false;
}
const asLong = (one: KeptSound): void =>
  void scene.edit([{ edit: "set-length", length: Math.max(1, sounds.over(one)), stretch: false }]);
</script>

<template>
  <section class="sounds" aria-label="Sound">
    <div class="panel-head">
      <h2>Sound</h2>
      <button
        class="chip small"
        role="switch"
        :aria-checked="!hearing.muted"
        title="Whether sounds are heard here; exports are not changed by it"
        @click="hearing.muted = !hearing.muted"
      >
        <VineIcon :name="hearing.muted ? 'silent' : 'sound'" /> {{ hearing.muted ? "nothing is heard" : "heard" }}
      </button>
      <button
        class="round small"
        title="Back to the values (Alt+S)"
        aria-label="Close the sounds"
        @click="sounds.toggle()"
      >
        <VineIcon name="after" />
      </button>
    </div>
    <p v-if="scene.whole" class="none">
      Sounds are heard with the whole scene. Go out to {{ scene.whole.name }} to hear and time them.
    </p>
    <div v-else class="list">
      <article v-for="one in sounds.list" :key="one.id" class="card" :class="{ on: isPicked(one) }">
        <header>
          <RenameField v-if="renaming === one.id" class="field" :name="one.name" @done="rename(one, $event)" />
          <button
            v-else
            class="name"
            :aria-expanded="isPicked(one)"
            @click="sounds.pickedId = one.id"
            @dblclick="renaming = one.id"
          >
            {{ one.name }}
          </button>
          <button
            class="round small"
            :title="`Rename ${one.name}`"
            :aria-label="`Rename ${one.name}`"
            @click="renaming = one.id"
          >
            <VineIcon name="pencil" />
          </button>
          <button
            class="round small"
            :title="`Take ${one.name} out of the scene`"
            :aria-label="`Take out ${one.name}`"
            @click="sounds.remove(one)"
          >
            <VineIcon name="bin" />
          </button>
        </header>
        <p class="facts">{{ facts(one) }}</p>
        <template v-if="isPicked(one)">
          <div class="line">
            <span>loudness</span>
            <NumberField
              :label="`Loudness of ${one.name}`"
              :value="one.gain"
              unit="%"
              :shown="100"
              :step="0.05"
              :low="0"
              :high="8"
              :digits="0"
              hint="100 % is as loud as the file"
              @change="sounds.change(one, { gain: $event })"
            />
            <span aria-hidden="true">×</span>
            <select
              :aria-label="`Dial for the loudness of ${one.name}`"
              :value="one.dial ?? ''"
              title="A keyed dial changes the volume over time"
              @change="sounds.change(one, { dial: ($event.target as HTMLSelectElement).value || null })"
            >
              <option value="">no dial</option>
              <option v-for="dial in dials" :key="dial.id" :value="dial.dial.id">{{ dial.name }}</option>
            </select>
            <button
              v-if="!one.dial"
              class="chip small"
              title="Makes a dial for the volume, for example for a fade"
              @click="key(one)"
            >
              Key it…
            </button>
          </div>
          <div class="buttons">
            <button
              class="chip"
              title="Keys on the beats, or a bounce between them"
              @click="sounds.lay(`sound:${one.id}`)"
            >
              Motion on its beats…
            </button>
            <button class="chip" title="A dial that follows the loudness; any channel can read it" @click="follow(one)">
              Dial from loudness
            </button>
            <button class="chip" title="Levels and beats as editable keys" @click="bringing.bringLevels(one)">
              Levels as keys…
            </button>
            <button
              v-if="sounds.over(one) !== playback.last + 1 && sounds.over(one) > 1"
              class="chip"
              :title="`The scene ends with it: ${sounds.over(one)} frames`"
              @click="asLong(one)"
            >
              Match scene length
            </button>
          </div>
        </template>
      </article>
      <p v-if="!sounds.list.length" class="none">
        Drop a sound file on the page (WAV, MP3, Ogg, FLAC), or use a shipped one. It is stored with the scene, plays in
        sync with the playhead, and is included in exported films.
      </p>
      <div class="buttons">
        <button class="chip" @click="chooser?.click()">Choose a file…</button>
        <button
          v-for="one in sounds.ready"
          :key="one.file"
          class="chip"
          :title="one.about"
          @click="sounds.add(one, one.minute)"
        >
          + {{ one.name }}
        </button>
        <input
          ref="chooser"
          type="file"
          accept="audio/*,.flac,.ogg,.opus"
          multiple
          hidden
          aria-label="Sound files"
          @change="choose"
        />
      </div>
      <BeatFields />
    </div>
  </section>
</template>

<style scoped>
.sounds {
  display: flex;
  flex-direction: column;
  min-height: 0;
  border-left: 1px solid var(--line);
  background: var(--paper);
}
h2 {
  font-size: 13px;
}
.list {
  overflow-y: auto;
  flex: 1;
  padding: 0 10px 10px;
  display: grid;
  align-content: start;
  gap: 8px;
}
.card {
  border: 1px solid var(--line);
  border-radius: var(--radius);
  padding: 7px 9px;
  display: grid;
  gap: 5px;
}
.on {
  border-color: var(--look);
}
header,
.line,
.buttons {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 5px 6px;
}
.name {
  flex: 1;
  min-width: 0;
  border: 0;
  background: none;
  padding: 0;
  font: inherit;
  font-weight: 600;
  color: var(--ink);
  text-align: left;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
  cursor: pointer;
}
.field {
  flex: 1;
}
.line :deep(.number-field) {
  flex: 0 0 88px;
}
.small {
  white-space: nowrap;
}
.round.small {
  width: 24px;
  height: 24px;
}
.facts,
.none,
.line span {
  margin: 0;
  color: var(--ink-2);
  font-size: 12.5px;
}
select {
  max-width: 104px;
}
.none {
  padding: 0 4px;
}
</style>
