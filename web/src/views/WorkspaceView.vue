<script setup lang="ts">
/** The workspace: where one scene is animated. */
import { computed, defineAsyncComponent, onBeforeUnmount, onMounted, ref, watch } from "vue";
import { RouterLink, useRouter } from "vue-router";
import { keysOf } from "@/api/channels";
import type { SceneObject } from "@/api/types";
import TroupePanel from "@/components/troupe/TroupePanel.vue";
import PanelDivider from "@/components/common/PanelDivider.vue";
import LinkDialog from "@/components/links/LinkDialog.vue";
import LinkDrag from "@/components/links/LinkDrag.vue";
import TakersDialog from "@/components/links/TakersDialog.vue";
import ParadeDialog from "@/components/parades/ParadeDialog.vue";
import ReadersDialog from "@/components/dialogs/ReadersDialog.vue";
import BroughtDialog from "@/components/bringing/BroughtDialog.vue";
import TableDialog from "@/components/bringing/TableDialog.vue";
import ExportDialog from "@/components/export/ExportDialog.vue";
import SceneSettings from "@/components/dialogs/SceneSettings.vue";
import FindDialog from "@/components/dialogs/FindDialog.vue";
import ShortcutsDialog from "@/components/dialogs/ShortcutsDialog.vue";
import BringBar from "@/components/bringing/BringBar.vue";
import NotesPanel from "@/components/notes/NotesPanel.vue";
import CompareDialog from "@/components/rehearsals/CompareDialog.vue";
import BeatsDialog from "@/components/sound/BeatsDialog.vue";
import SoundPanel from "@/components/sound/SoundPanel.vue";
import RehearsalsPanel from "@/components/rehearsals/RehearsalsPanel.vue";
import PictureStage from "@/components/picture/PictureStage.vue";
import TimeSheet from "@/components/sheet/TimeSheet.vue";
import WorkLine from "@/components/common/WorkLine.vue";
import TopBar from "@/components/top/TopBar.vue";
import ValuesPanel from "@/components/values/ValuesPanel.vue";
import VinePanel from "@/components/vine/VinePanel.vue";
import { bringsFiles, filesOf } from "@/composables/bringing/files";
import { later } from "@/composables/bringing/state";
import { useBringIn } from "@/composables/bringing/useBringIn";
import { useOnceTrue } from "@/composables/useOnceTrue";
import { useShortcuts } from "@/composables/useShortcuts";
import { useWatching } from "@/composables/useWatching";
import { useWorkspaceShortcuts } from "@/composables/shortcuts/useWorkspaceShortcuts";
import { useInside } from "@/stores/inside";
import { useMessages } from "@/stores/messages";
import { useLinking } from "@/stores/linking";
import { useLive } from "@/stores/live";
import { usePlayback } from "@/stores/playback";
import { useRehearsals } from "@/stores/rehearsals";
import { usePanels } from "@/stores/panels";
import { useScene } from "@/stores/scene";
import { useSelection } from "@/stores/selection";
import { useSounds } from "@/stores/sounds";
import { useVocabulary } from "@/stores/vocabulary";

/** The guide is large, and few open it: it is fetched when somebody does. */
const HelpDialog = defineAsyncComponent(() => import("@/components/help/HelpDialog.vue"));

const props = defineProps<{ id: string }>();
const scene = useScene();
const selection = useSelection();
const playback = usePlayback();
const vocabulary = useVocabulary();
const linking = useLinking();
const live = useLive();
const inside = useInside();
const messages = useMessages();
const panels = usePanels();
const rehearsals = useRehearsals();
const sounds = useSounds();
const router = useRouter();

const stage = ref<InstanceType<typeof PictureStage>>();
const [exporting, setting, shortcutsShown, helping] = [ref(false), ref(false), ref(false), ref(false)];
// Dialogs are mounted when they are first opened: together they would take a good part of the time a scene takes to
// open.
const mounted = {
  export: useOnceTrue(() => exporting.value),
  settings: useOnceTrue(() => setting.value),
  shortcuts: useOnceTrue(() => shortcutsShown.value),
  help: useOnceTrue(() => helping.value),
  find: useOnceTrue(() => panels.finding),
  compare: useOnceTrue(() => rehearsals.other !== null),
};
const missing = ref(false);

const shortcuts = useWorkspaceShortcuts({
  nudge: (kind, by) => void stage.value?.nudge(kind, by),
  shortcuts: () => (shortcutsShown.value = true),
  help: () => (helping.value = true),
  find: () => (panels.finding = true),
  export: () => (exporting.value = true),
  live: () => live.begin(),
  zoom: (what) => stage.value?.zoom(what),
  drawing: (what) => stage.value?.drawn(what) ?? false,
  points: (what) => stage.value?.points(what) ?? false,
  add: () => document.querySelector<HTMLElement>("[aria-label='Add to the picture']")?.click(),
});
useShortcuts(shortcuts);

/** The outermost scene, once it is known to be there. */
const watched = ref<string>();
useWatching(watched);

const bringing = useBringIn();
/** Whether files are held over the page. */
const dropping = ref(false);
function dragOver(event: DragEvent): void {
  if (!bringsFiles(event)) return;
  event.preventDefault();
  dropping.value = true;
}
function drop(event: DragEvent): void {
  if (!bringsFiles(event)) return;
  event.preventDefault();
  dropping.value = false;
  void bringing.bring(filesOf(event), stage.value?.pointAt(event));
}

async function open(id: string): Promise<void> {
  const arrived = inside.arrived(id);
  selection.reset();
  playback.reset();
  const [found] = await Promise.all([scene.open(id), vocabulary.load()]);
  // Meanwhile somebody may have moved on to another scene.
  if (id !== props.id) return;
  missing.value = !found;
  watched.value = found ? id.split("~")[0] : undefined;
  if (found && later.value.length) {
    const files = later.value;
    later.value = [];
    void bringing.bring(files);
  }
  if (arrived) {
    playback.goTo(arrived.frame);
    if (arrived.pick) {
      selection.pick(arrived.pick);
      return;
    }
  }
  // What moves most is what one most likely came for.
  const things: readonly SceneObject[] = [...[...scene.objects].reverse(), ...scene.dials];
  const liveliest = things.reduce<SceneObject | null>(
    (best, one) => (moving(one) > (best ? moving(best) : 0) ? one : best),
    null,
  );
  selection.pick(liveliest?.id ?? null);
  // And of it, what moves.
  const row =
    liveliest &&
    vocabulary
      .rowsOf(liveliest)
      .find((one) => one.channels.some((channel) => keysOf(liveliest, channel.name).length > 1));
  if (row) selection.pickRow(row.name);
}

const moving = (thing: SceneObject): number =>
  Object.values(thing.channels ?? {}).filter((channel) => channel.keys.length > 1).length;

onMounted(() => open(props.id));
watch(() => props.id, open);
watch(
  () => scene.goOutTo,
  (outside) => {
    if (!outside) return;
    messages.info("What you were inside of is no more, so you are outside of it again. Redo brings it back.");
    void router.replace({ name: "workspace", params: { id: outside } });
  },
);
watch(
  () => playback.last,
  (last) => playback.frame > last && playback.goTo(last),
);
watch(
  () => scene.byId,
  (things) => selection.objectId && !things.has(selection.objectId) && selection.pick(null),
);
watch(
  () => scene.head?.name,
  (name) => (document.title = name ? `${name} · Vine Swing` : "Vine Swing"),
);
onBeforeUnmount(() => {
  playback.pause();
  scene.close();
  document.title = "Vine Swing";
});
const ready = computed(() => scene.head !== null && vocabulary.words !== null);
</script>

<template>
  <div
    v-if="ready"
    class="workspace"
    :class="{ dropping }"
    :style="{ gridTemplateRows: panels.rows, minHeight: `${panels.least}px` }"
    @dragover="dragOver"
    @dragleave="dropping = false"
    @drop="drop"
  >
    <TopBar
      @export="exporting = true"
      @settings="setting = true"
      @help="helping = true"
      @shortcuts="shortcutsShown = true"
    />
    <div class="middle" :style="{ gridTemplateColumns: panels.columns }">
      <div class="panel">
        <TroupePanel v-if="panels.isOpen('troupe')" />
        <PanelDivider v-if="!panels.big" panel="troupe" />
      </div>
      <PictureStage ref="stage" />
      <div class="panel">
        <NotesPanel v-if="panels.isOpen('values') && panels.beside === 'notes'" />
        <RehearsalsPanel v-else-if="panels.isOpen('values') && panels.beside === 'rehearsals'" />
        <SoundPanel v-else-if="panels.isOpen('values') && panels.beside === 'sounds'" />
        <ValuesPanel v-else-if="panels.isOpen('values')" />
        <PanelDivider v-if="!panels.big" panel="values" />
      </div>
    </div>
    <div class="panel">
      <TimeSheet v-if="panels.isOpen('sheet')" />
      <PanelDivider v-if="!panels.big" panel="sheet" />
    </div>
    <BringBar />
    <WorkLine :work="scene.working" doing="Working it out:" />
    <div class="panel">
      <VinePanel v-if="panels.isOpen('vine')" />
      <PanelDivider v-if="!panels.big" panel="vine" />
    </div>
    <LinkDrag />
    <LinkDialog v-if="linking.asked" />
    <TakersDialog v-if="linking.takers" :key="linking.takers" />
    <ParadeDialog
      v-if="selection.parading"
      :id="selection.parading"
      :key="selection.parading"
      :model-value="true"
      @update:model-value="selection.parading = null"
    />
    <ReadersDialog />
    <BroughtDialog v-if="bringing.report.value" />
    <BeatsDialog v-if="sounds.laying" />
    <TableDialog v-if="bringing.table.value" />
    <ExportDialog v-if="mounted.export.value" v-model="exporting" />
    <CompareDialog v-if="mounted.compare.value" />
    <SceneSettings v-if="mounted.settings.value" v-model="setting" />
    <FindDialog
      v-if="mounted.find.value"
      v-model="panels.finding"
      :shortcuts="shortcuts"
      @open="$event === 'export' ? (exporting = true) : (setting = true)"
    />
    <ShortcutsDialog v-if="mounted.shortcuts.value" v-model="shortcutsShown" :shortcuts="shortcuts" />
    <HelpDialog v-if="mounted.help.value" v-model="helping" />
  </div>
  <main v-else class="waiting">
    <template v-if="missing">
      <h1>This scene is not on the Shelf</h1>
      <p>It may have been deleted. Deleted scenes can be restored there.</p>
      <RouterLink to="/" class="primary">Go to the Shelf</RouterLink>
    </template>
    <template v-else>
      <p>Opening the scene…</p>
      <WorkLine :work="scene.working" doing="Working out its motion:" />
      <RouterLink to="/" class="plain">Go back to the Shelf</RouterLink>
    </template>
  </main>
</template>

<style scoped>
.workspace {
  display: grid;
  height: 100vh;
  /* In a smaller window, as where the page is enlarged to read it, it is scrolled rather than cut off. */
  min-width: 1000px;
  overflow: hidden;
}
.dropping {
  outline: 4px dashed var(--travel);
  outline-offset: -6px;
}
.panel {
  position: relative;
  display: grid;
  grid-template: minmax(0, 1fr) / minmax(0, 1fr);
  min-width: 0;
  min-height: 0;
}
.middle {
  display: grid;
  min-height: 0;
}
.waiting {
  display: grid;
  place-content: center;
  justify-items: center;
  gap: 8px;
  height: 100vh;
}
.primary {
  text-decoration: none;
}
</style>
