<script setup lang="ts">
/**
 * All pictures kept with the scene: where each is shown, another in its place, and letting go of what nothing shows.
 */
import { ElDialog } from "element-plus";
import { computed, ref } from "vue";
import { newId } from "@/api/ids";
import { pictureAddress } from "@/api/pictures";
import type { KeptPicture } from "@/api/types";
import { useBringIn } from "@/composables/bringing/useBringIn";
import { useScene } from "@/stores/scene";
import { useSelection } from "@/stores/selection";

const open = defineModel<boolean>({ required: true });
const scene = useScene();
const selection = useSelection();
const bringing = useBringIn();
const input = ref<HTMLInputElement>();
/** The picture that another file is being chosen for. */
const replaced = ref<string | null>(null);

const pictures = computed(() => scene.head?.pictures ?? []);
const shown = (id: string): number => scene.head?.pictures_shown[id] ?? 0;
const unused = computed(() => pictures.value.filter((one) => !shown(one.id)).length);
const said = (count: number): string =>
  count ? `shown by ${count} ${count === 1 ? "object" : "objects"}` : "not shown";

function begin(id: string): void {
  replaced.value = id;
  input.value?.click();
}

async function replace(files: FileList | null): Promise<void> {
  const [file, old] = [files?.[0], replaced.value];
  if (!file || !old) return;
  const [one] = (await bringing.read([file])).get(file)?.pictures ?? [];
  if (one) await scene.edit([{ edit: "replace-picture", old, picture: one }]);
  if (input.value) input.value.value = "";
}

async function putIn(picture: KeptPicture): Promise<void> {
  if (!scene.head) return;
  const id = newId();
  const [x, y] = scene.head.size.map((side) => side / 2) as [number, number];
  const page = { name: picture.name, pictures: [picture], frames_a_page: 2, first: 0 };
  if (await scene.edit([{ edit: "add-picture", id, ...page, x, y }])) selection.pick(id);
  open.value = false;
}
</script>

<template>
  <ElDialog v-model="open" title="Pictures of this scene" width="560" append-to-body>
    <ul v-if="pictures.length" class="list" aria-label="Stored images">
      <li v-for="one in pictures" :key="one.id">
        <img :src="pictureAddress(one.id, 512)" alt="" loading="lazy" />
        <div class="words">
          <strong>{{ one.name }}</strong>
          <span>{{ one.width }} × {{ one.height }} px · {{ said(shown(one.id)) }}</span>
        </div>
        <button class="chip small" title="One more object that shows it" @click="putIn(one)">Put in</button>
        <button class="chip small" title="Replace the file wherever it is shown" @click="begin(one.id)">
          Replace…
        </button>
      </li>
    </ul>
    <p v-else>No images yet. Drop image files onto the page to store them with the scene.</p>
    <input
      ref="input"
      class="sr-only"
      type="file"
      tabindex="-1"
      aria-label="Replacement picture"
      @change="replace(input?.files ?? null)"
    />
    <template #footer>
      <button
        v-if="unused"
        class="plain"
        title="They are kept with the scene, but nothing shows them"
        @click="scene.edit([{ edit: 'drop-pictures' }])"
      >
        Let {{ unused }} unused {{ unused === 1 ? "picture" : "pictures" }} go
      </button>
      <button class="primary" @click="open = false">Done</button>
    </template>
  </ElDialog>
</template>

<style scoped>
.list {
  list-style: none;
  margin: 0;
  padding: 0;
  display: grid;
  gap: 6px;
  max-height: 46vh;
  overflow-y: auto;
}
li {
  display: flex;
  align-items: center;
  gap: 10px;
  border-bottom: 1px solid var(--line);
  padding-bottom: 6px;
}
img {
  width: 72px;
  height: 48px;
  object-fit: contain;
  background: var(--paper-3);
  border-radius: 6px;
}
.words {
  flex: 1;
  min-width: 0;
  display: grid;
}
.words strong {
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.words span {
  color: var(--ink-2);
  font-size: 12px;
}
p {
  color: var(--ink-2);
}
</style>
