<script setup lang="ts">
/** The pages of a picture or flipbook: order, pace, more or fewer of them, and how they are in their box. */
import { computed, ref } from "vue";
import { keysOf } from "@/api/channels";
import { numberAt } from "@/api/motion";
import { pictureAddress } from "@/api/pictures";
import type { PictureThing } from "@/api/types";
import { chosenIn } from "@/components/common/chosen";
import NumberField from "@/components/common/NumberField.vue";
import PicturesDialog from "@/components/pictures/PicturesDialog.vue";
import { useOnceTrue } from "@/composables/useOnceTrue";
import { useBringIn } from "@/composables/bringing/useBringIn";
import { usePlayback } from "@/stores/playback";
import { useScene } from "@/stores/scene";

const props = defineProps<{ thing: PictureThing }>();
const scene = useScene();
const playback = usePlayback();
const bringing = useBringIn();
const BEHIND = [
  { how: "fill", label: "fill", about: "Behind everything, over the whole scene, cropped" },
  {
    how: "tile",
    label: "tile",
    about: "Behind everything, as high as the scene and across without end: for long pans",
  },
  { how: "stay", label: "as it is", about: "Behind everything, in the middle, in its own size" },
] as const;
const [adding, replacing] = [ref<HTMLInputElement>(), ref<HTMLInputElement>()];

const book = computed(() => props.thing.picture);
const pages = computed(() => book.value.pictures);
const names = computed(() => new Map((scene.head?.pictures ?? []).map((one) => [one.id, one.name])));
const listing = ref(false);
const listed = useOnceTrue(() => listing.value);
/** Which page is shown at the playhead. */
const here = computed(() => {
  const page = scene.motion?.objects.get(props.thing.id)?.channels["page"];
  const count = pages.value.length;
  return page ? ((Math.floor(numberAt(page, playback.textFrame)) % count) + count) % count : 0;
});
/** How many frames a page is shown, where the pages are turned evenly. */
const pace = computed(() => {
  const keys = keysOf(props.thing, "page");
  const [first, last] = [keys[0], keys.at(-1)];
  if (!first || !last || keys.length !== 2) return null;
  const turned = Number(last.value) - Number(first.value);
  return turned ? (last.frame - first.frame) / turned : null;
});
const dragged = ref<number | null>(null);

const set = (changes: Partial<typeof book.value>) =>
  scene.edit([{ edit: "set-picture", id: props.thing.id, picture: { ...book.value, ...changes }, pictures: [] }]);

function moveTo(place: number): void {
  const from = dragged.value;
  dragged.value = null;
  if (from === null || from === place) return;
  const next = [...pages.value];
  const [one] = next.splice(from, 1);
  next.splice(place, 0, one!);
  void set({ pictures: next });
}

function leaveOut(place: number): void {
  void set({ pictures: pages.value.filter((_, i) => i !== place) });
}

function setPace(frames: number): void {
  const first = keysOf(props.thing, "page")[0]?.frame ?? playback.frame;
  void scene.edit([{ edit: "turn-pages", id: props.thing.id, frames_a_page: frames, first }]);
}

/** Add pages at the end; a flipbook that turns goes on turning all of them. */
async function addPages(files: FileList | null): Promise<void> {
  const found = await bringing.read([...(files ?? [])]);
  const pictures = [...found.values()].flatMap((one) => one.pictures);
  if (!pictures.length) return;
  const next = { ...book.value, pictures: [...pages.value, ...pictures.map((one) => one.id)] };
  const frames = pace.value ?? 2;
  const first = keysOf(props.thing, "page")[0]?.frame ?? playback.frame;
  await scene.edit([
    { edit: "set-picture", id: props.thing.id, picture: next, pictures },
    { edit: "turn-pages", id: props.thing.id, frames_a_page: frames, first },
  ]);
}

/** Replace the file of this page wherever it is used. */
async function replace(files: FileList | null): Promise<void> {
  const file = files?.[0];
  const old = pages.value[here.value];
  if (!file || !old) return;
  const [one] = (await bringing.read([file])).get(file)?.pictures ?? [];
  if (one) await scene.edit([{ edit: "replace-picture", old, picture: one }]);
}
</script>

<template>
  <div class="picture" role="group" aria-label="Pages">
    <div class="strip">
      <button
        v-for="(id, i) in pages"
        :key="`${id} ${i}`"
        class="page"
        :class="{ here: i === here, over: dragged !== null }"
        draggable="true"
        :title="`Page ${i + 1}, ${names.get(id) ?? ''}: drag it to another place`"
        :aria-label="`Page ${i + 1}`"
        :aria-pressed="i === here"
        @dragstart="dragged = i"
        @dragend="dragged = null"
        @dragover.prevent
        @drop.prevent.stop="moveTo(i)"
      >
        <img :src="pictureAddress(id)" alt="" loading="lazy" />
        <span>{{ i + 1 }}</span>
        <i
          v-if="pages.length > 1"
          role="button"
          tabindex="0"
          :aria-label="`Leave page ${i + 1} out`"
          title="Remove this page"
          @click.stop="leaveOut(i)"
          @keydown.enter.stop="leaveOut(i)"
          >×</i
        >
      </button>
    </div>
    <div class="line">
      <NumberField
        v-if="pages.length > 1"
        label="Frames a page"
        :value="pace ?? 0"
        unit="frames a page"
        :shown="1"
        :step="1"
        :low="0.1"
        :high="10000"
        :digits="1"
        hint="Duration of each page; a change sets the same pace for all pages, forever"
        @change="setPace($event)"
      />
    </div>
    <div class="line">
      <button class="chip small" title="Add pages at the end" @click="adding?.click()">Add pages…</button>
      <button class="chip small" title="Replace the file of this page wherever it is used" @click="replacing?.click()">
        Replace…
      </button>
    </div>
    <div class="line">
      <label title="How a page fits its width and height"
        >in its box
        <select aria-label="In its box" :value="book.fit" @change="set({ fit: chosenIn($event) as 'inside' })">
          <option value="inside">whole</option>
          <option value="cover">cropped</option>
          <option value="stretch">stretched</option>
        </select></label
      >
      <label title="The box repeatedly beside itself, without end"
        >repeated
        <select aria-label="Repeated" :value="book.tile" @change="set({ tile: chosenIn($event) as 'none' })">
          <option value="none">no</option>
          <option value="across">across</option>
          <option value="down">down</option>
          <option value="both">both ways</option>
        </select></label
      >
      <label title="Pixels stay sharp where the picture is larger than it was drawn"
        ><input type="checkbox" :checked="!book.smooth" @change="set({ smooth: !book.smooth })" /> crisp pixels</label
      >
    </div>
    <div class="line" role="group" aria-label="As background">
      as background
      <button
        v-for="one in BEHIND"
        :key="one.how"
        class="chip small"
        :title="one.about"
        @click="scene.edit([{ edit: 'lay-behind', id: thing.id, how: one.how }])"
      >
        {{ one.label }}
      </button>
    </div>
    <div class="line">
      <button
        class="chip small"
        title="Every image stored with this scene, and the objects that show it"
        @click="listing = true"
      >
        All pictures…
      </button>
    </div>
    <PicturesDialog v-if="listed" v-model="listing" />
    <input
      ref="adding"
      class="sr-only"
      type="file"
      multiple
      aria-label="Pages to add"
      @change="addPages(adding?.files ?? null)"
    />
    <input
      ref="replacing"
      class="sr-only"
      type="file"
      aria-label="Picture instead"
      @change="replace(replacing?.files ?? null)"
    />
  </div>
</template>

<style scoped>
.picture {
  display: grid;
  gap: 6px;
  padding: 6px 14px;
  font-size: 12px;
}
.strip {
  display: flex;
  gap: 4px;
  overflow-x: auto;
  padding-bottom: 4px;
}
.page {
  position: relative;
  flex: none;
  width: 46px;
  height: 52px;
  border: 1px solid var(--line);
  border-radius: 7px;
  background: var(--paper-3);
  padding: 2px;
  cursor: grab;
  display: grid;
  justify-items: center;
}
.page img {
  width: 38px;
  height: 32px;
  object-fit: contain;
}
.page span {
  font: 11px var(--mono);
}
.page.here {
  border-color: var(--playhead);
  box-shadow: 0 0 0 1px var(--playhead);
}
.page i {
  position: absolute;
  right: 0;
  top: 0;
  width: 15px;
  height: 15px;
  line-height: 14px;
  border-radius: 50%;
  font-style: normal;
  opacity: 0;
  background: var(--paper);
}
.page:hover i,
.page i:focus-visible {
  opacity: 1;
}
.line {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 6px 10px;
}
select {
  padding: 2px 5px;
}
label {
  display: flex;
  align-items: center;
  gap: 4px;
}
</style>
