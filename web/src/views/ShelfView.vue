<script setup lang="ts">
/** The Shelf: all scenes. */
import { useEventListener } from "@vueuse/core";
import { ElCollapse, ElCollapseItem } from "element-plus";
import { computed, onMounted, ref, shallowRef } from "vue";
import { RouterLink, useRouter } from "vue-router";
import { api } from "@/api/client";
import type { Shelf, Summary } from "@/api/types";
import { Work } from "@/api/work";
import { filesOf } from "@/composables/bringing/files";
import { later } from "@/composables/bringing/state";
import { isScene, plainName, withoutSuffix } from "@/geometry/fileNames";
import VineIcon from "@/components/common/VineIcon.vue";
import SureButton from "@/components/common/SureButton.vue";
import BackupList from "@/components/shelf/BackupList.vue";
import SceneCard from "@/components/shelf/SceneCard.vue";
import SizeDialog from "@/components/shelf/SizeDialog.vue";
import WorkLine from "@/components/common/WorkLine.vue";
import { useMessages } from "@/stores/messages";

/** The service takes no larger files; saying so here spares the upload. */
const LARGEST_FILE = 128 * 1024 * 1024;
const router = useRouter();
const messages = useMessages();
const scenes = ref<Summary[] | null>(null);
const deleted = ref<Summary[]>([]);
const input = ref<HTMLInputElement>();
const over = ref(false);
const copies = ref(0);
/** The scene whose size is shown. */
const measured = shallowRef<Summary | null>(null);

/** What is asked of the service now, newest last: a file can be opened while a slow service still reads the Shelf. */
const running = shallowRef<readonly { doing: string; work: Work }[]>([]);
const newest = computed(() => running.value.at(-1));

async function attempt<T>(doing: string, ask: (work: Work) => Promise<T>): Promise<T | null> {
  const mine = { doing, work: new Work() };
  running.value = [...running.value, mine];
  try {
    return await messages.attempt(() => ask(mine.work));
  } finally {
    running.value = running.value.filter((one) => one !== mine);
  }
}

async function load(): Promise<void> {
  show(await attempt("Looking at the Shelf…", () => api.shelf()));
}

function show(shelf: Shelf | null): void {
  if (shelf) [scenes.value, deleted.value] = [shelf.scenes, shelf.deleted];
}

/** What was done on another page meanwhile is seen once this one is looked at again. */
async function lookAgain(): Promise<void> {
  if (newest.value || document.hidden) return;
  const shelf = await api.shelf().catch(() => null);
  if (!newest.value) show(shelf);
}
useEventListener(window, "focus", lookAgain);
useEventListener(document, "visibilitychange", lookAgain);

async function create(): Promise<void> {
  const taken = new Set(scenes.value?.map((scene) => scene.name));
  let name = "New scene";
  for (let n = 2; taken.has(name); n++) name = `New scene ${n}`;
  const made = await attempt("Making a scene…", (work) => api.createScene({ name }, work));
  if (made) await router.push(`/scenes/${made.id}`);
}

async function openFile(file: File | undefined): Promise<void> {
  if (!file) return;
  if (file.size > LARGEST_FILE) {
    messages.error(
      `${file.name} is ${(file.size / 1024 / 1024).toFixed(0)} MB; a scene file may be at most ${LARGEST_FILE / 1024 / 1024} MB. Simplify its outlines and save it again.`,
    );
    return;
  }
  const made = await attempt(`Opening ${file.name}…`, (work) => api.openBundle(file, work));
  if (input.value) input.value.value = "";
  if (!made) return;
  await router.push(`/scenes/${made.id}`);
  if (made.lost.length) messages.warn(`Left out of ${file.name}: ${made.lost.join("; ")}.`);
}

async function duplicate(scene: Summary): Promise<void> {
  if (await attempt(`Copying ${scene.name}…`, (work) => api.duplicate(scene.id, work))) await load();
}

async function remove(scene: Summary): Promise<void> {
  if (!(await attempt(`Deleting ${scene.name}…`, () => api.deleteScene(scene.id)))) return;
  await load();
  messages.withUndo(`${scene.name} is off the Shelf.`, "Undo", () => void restore(scene));
}

async function restore(scene: Summary): Promise<void> {
  if (await attempt(`Bringing back ${scene.name}…`, () => api.restoreScene(scene.id))) await load();
}

async function erase(scene: Summary): Promise<void> {
  if (await attempt(`Deleting ${scene.name} for good…`, () => api.eraseScene(scene.id))) await load();
}

function dropped(event: DragEvent): void {
  over.value = false;
  const files = filesOf(event);
  if (files[0] && !isScene(files[0].name)) void createWith(files);
  else void openFile(files[0]);
}

/** A new scene of picture files. */
async function createWith(files: readonly File[]): Promise<void> {
  const name = plainName(withoutSuffix(files[0]?.name ?? ""));
  const made = await attempt("Making a scene…", (work) => api.createScene({ name: name || "New scene" }, work));
  if (!made) return;
  later.value = files;
  await router.push(`/scenes/${made.id}`);
}

onMounted(load);
</script>

<template>
  <main
    class="shelf"
    :class="{ over }"
    @dragover.prevent="over = true"
    @dragleave.self="over = false"
    @drop.prevent="dropped"
  >
    <header>
      <img src="/icon.svg" alt="" width="34" height="34" />
      <div>
        <h1>Vine Swing</h1>
        <p>Your shelf of scenes</p>
      </div>
      <span class="busy" aria-live="polite">{{ newest?.doing }}</span>
      <RouterLink to="/principles" class="plain" title="The classic twelve, each with a live example"
        >Principles</RouterLink
      >
      <RouterLink to="/notes" class="plain" title="What could be better about a motion, each fault beside its mend"
        >Notes</RouterLink
      >
      <RouterLink to="/help" class="plain" title="A guide by task, to read and to search">Help</RouterLink>
      <button
        class="plain"
        title="Open a scene file, a bundle or an SVG drawing; you can also drop one here, or pictures"
        @click="input?.click()"
      >
        <VineIcon name="file" /> Open a scene file
      </button>
      <button class="primary" @click="create"><VineIcon name="add" /> New scene</button>
      <input
        ref="input"
        type="file"
        accept=".json,.vine,.svg"
        class="sr-only"
        tabindex="-1"
        aria-label="Scene file"
        @change="openFile(($event.target as HTMLInputElement).files?.[0])"
      />
    </header>
    <WorkLine :work="newest?.work ?? null" doing="Working it out:" class="working" />
    <div v-if="scenes?.length" class="grid">
      <SceneCard
        v-for="scene in scenes"
        :key="`${scene.id} ${scene.revision}`"
        :scene="scene"
        @duplicate="duplicate(scene)"
        @size="measured = scene"
        @remove="remove(scene)"
      />
    </div>
    <div v-else-if="scenes" class="empty">
      <h2>The Shelf is empty</h2>
      <p>Create a scene: add a shape, key it, go to another frame and move it. Or open a scene file.</p>
      <button class="primary" @click="create"><VineIcon name="add" /> New scene</button>
    </div>
    <ElCollapse v-show="deleted.length || copies" class="deleted">
      <ElCollapseItem v-if="deleted.length" :title="`Deleted scenes (${deleted.length})`">
        <p v-for="scene in deleted" :key="scene.id">
          {{ scene.name }} <button class="plain" @click="restore(scene)">Bring back</button>
          <SureButton
            asks="Delete for good…"
            confirms="Yes, delete it for good"
            :title="`Take ${scene.name} out of the data file, with its history and its rehearsals; this cannot be undone`"
            @sure="erase(scene)"
          />
        </p>
      </ElCollapseItem>
      <ElCollapseItem v-show="copies" :title="`Backups of all scenes (${copies})`">
        <BackupList @brought="load" @known="copies = $event" />
      </ElCollapseItem>
    </ElCollapse>
    <SizeDialog :scene="measured" @close="measured = null" />
  </main>
</template>

<style scoped>
.shelf {
  min-height: 100%;
  background: var(--paper-2);
  padding: 28px 40px 60px;
}
.over {
  outline: 3px dashed var(--travel);
  outline-offset: -12px;
}
header {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 12px;
  margin: 0 auto 24px;
  max-width: 1160px;
}
h1 {
  font-size: 22px;
  color: var(--travel);
  line-height: 1.1;
}
header p {
  margin: 2px 0 0;
  color: var(--ink-2);
}
header .plain,
header .primary,
h1 {
  white-space: nowrap;
}
a.plain {
  text-decoration: none;
  color: inherit;
}
.working {
  top: 96px;
}
.busy {
  flex: 1;
  text-align: right;
  color: var(--ink-2);
}
.grid {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(300px, 1fr));
  gap: 22px;
  margin: 0 auto;
  max-width: 1160px;
}
.empty {
  text-align: center;
  padding: 80px 20px;
  color: var(--ink-2);
  display: grid;
  justify-items: center;
  gap: 10px;
}
.deleted {
  max-width: 1160px;
  margin: 36px auto 0;
  --el-collapse-header-bg-color: transparent;
  --el-collapse-content-bg-color: transparent;
}
.deleted p {
  display: flex;
  gap: 12px;
  align-items: center;
  margin: 4px 0;
}
.deleted .plain {
  padding: 3px 12px;
}
</style>
