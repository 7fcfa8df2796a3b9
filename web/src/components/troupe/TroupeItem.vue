<script setup lang="ts">
/** An object's line in the troupe: pick it, drag it elsewhere, rename, lock or hide it, and its menu. */
import { computed, nextTick, ref, watch } from "vue";
import { isFigure, isInset, isParade, kindOf } from "@/api/kinds";
import type { SceneObject } from "@/api/types";
import PaintedThumb from "@/components/common/PaintedThumb.vue";
import VineIcon, { type IconName } from "@/components/common/VineIcon.vue";
import TroupeMenu from "@/components/troupe/TroupeMenu.vue";
import { useTroupe } from "@/composables/troupe/useTroupe";
import { TAGS } from "@/geometry/tags";
import { withParts } from "@/picture/boxes";
import { useScene } from "@/stores/scene";
import { useSelection } from "@/stores/selection";
import { useVocabulary } from "@/stores/vocabulary";

const props = defineProps<{
  thing: SceneObject;
  depth: number;
  parts: number;
  folded: boolean;
  dragging: string | null;
}>();
const emit = defineEmits<{
  fold: [];
  hang: [];
  drag: [id: string | null];
  drop: [where: "before" | "after" | "onto"];
}>();
const scene = useScene();
const selection = useSelection();
const vocabulary = useVocabulary();
const troupe = useTroupe();

const lead = computed(() => selection.objectId === props.thing.id);
const picked = computed(() => lead.value || selection.also.has(props.thing.id));
/** With Shift or Ctrl it is picked together with the others. */
const pick = (event: MouseEvent): void =>
  event.shiftKey || event.ctrlKey || event.metaKey ? selection.toggle(props.thing.id) : selection.pick(props.thing.id);
const renaming = computed(() => selection.renaming === props.thing.id);
/**
 * What its thumbnail shows, in drawing order. Read from the scene and not from its motion, which changes with every
 * drag.
 */
const painted = computed(() => {
  const own = new Set(withParts(props.thing.id, scene.parts));
  return scene.objects.filter((one) => own.has(one.id) && vocabulary.kindWordsOf(one)?.is_drawn).map((one) => one.id);
});
const note = computed(() => {
  const keyed = Object.values(props.thing.channels ?? {}).some((channel) => channel.keys.length > 1);
  if (isParade(props.thing)) return "parade";
  if (isInset(props.thing)) return "inset";
  if (props.thing.pinned && scene.camera) return "pinned";
  if (isFigure(props.thing))
    return props.thing.rules.some((rule) => rule.kind === "gait" && rule.on) ? "walks" : "figure";
  return props.parts ? `${props.parts} ${props.parts === 1 ? "part" : "parts"}` : keyed ? "moves" : kindOf(props.thing);
});

const draft = ref("");
const input = ref<HTMLInputElement>();
const row = ref<HTMLElement>();
/**
 * Whether the pointer or the focus has been here: only then is a menu made ready, as hundreds of them would cost
 * seconds.
 */
const near = ref(false);
const over = ref<"before" | "after" | "onto" | null>(null);

watch(
  renaming,
  async (now) => {
    if (!now) return;
    draft.value = props.thing.name;
    await nextTick();
    input.value?.focus();
    input.value?.select();
  },
  { immediate: true },
);
watch(lead, (now) => now && row.value?.scrollIntoView({ block: "nearest" }), { flush: "post" });

async function rename(): Promise<void> {
  if (!renaming.value) return;
  selection.renaming = null;
  const name = draft.value.trim();
  if (name && name !== props.thing.name) await scene.edit([{ edit: "rename-object", id: props.thing.id, name }]);
}

/** Whether what is done here is done to all that are picked together. */
const isOfSeveral = computed(() => selection.several && picked.value);

const tagTitle = computed(
  () => `Marked ${TAGS.find((one) => one.colour === props.thing.tag)?.name ?? "with a colour"}`,
);

function overAt(event: DragEvent): void {
  if (!props.dragging || props.dragging === props.thing.id) return;
  event.preventDefault();
  const rect = row.value!.getBoundingClientRect();
  const share = (event.clientY - rect.top) / rect.height;
  over.value = share < 0.28 ? "before" : share > 0.72 ? "after" : "onto";
}

function dropHere(): void {
  if (over.value) emit("drop", over.value);
  over.value = null;
}
</script>

<template>
  <li
    ref="row"
    class="item"
    :class="[{ picked, unseen: !thing.shown }, over]"
    role="treeitem"
    :aria-level="depth + 1"
    :aria-expanded="parts ? !folded : undefined"
    :aria-description="note"
    :aria-selected="picked"
    :aria-label="thing.name"
    tabindex="0"
    draggable="true"
    :data-link-object="thing.id"
    :style="{ paddingLeft: `${6 + depth * 16}px` }"
    @pointerenter="near = true"
    @focusin="near = true"
    @click="pick"
    @dblclick="selection.renaming = thing.id"
    @keydown.enter.self.prevent="selection.pick(thing.id)"
    @keydown.space.self.prevent="selection.pick(thing.id)"
    @keydown.f2.prevent="selection.renaming = thing.id"
    @keydown.alt.up.prevent="troupe.order([thing.id], 'forward')"
    @keydown.alt.down.prevent="troupe.order([thing.id], 'backward')"
    @dragstart="emit('drag', thing.id)"
    @dragend="emit('drag', null)"
    @dragover="overAt"
    @dragleave="over = null"
    @drop.prevent="dropHere"
  >
    <button
      v-if="parts"
      class="fold"
      :aria-label="folded ? `Show the parts of ${thing.name}` : `Fold the parts of ${thing.name}`"
      @click.stop="emit('fold')"
    >
      <VineIcon name="after" :class="{ turned: !folded }" />
    </button>
    <span v-if="thing.tag" class="mark" :style="{ background: thing.tag }" :title="tagTitle" />
    <PaintedThumb v-if="painted.length" :ids="painted" :frame="0" />
    <span v-else class="no-thumb"
      ><VineIcon :name="(vocabulary.kindWordsOf(thing)?.icon ?? 'ellipse') as IconName"
    /></span>
    <input
      v-if="renaming"
      ref="input"
      v-model="draft"
      class="rename"
      :aria-label="`New name of ${thing.name}`"
      maxlength="80"
      @keydown.enter.stop="rename"
      @keydown.esc.stop="selection.renaming = null"
      @blur="rename"
      @click.stop
      @dblclick.stop
    />
    <span v-else class="name" dir="auto" :title="`${thing.name}: double click or F2 to rename`">{{ thing.name }}</span>
    <span v-if="!renaming" class="note" :data-note="note" />
    <button
      v-if="!renaming && thing.kind !== 'camera'"
      class="tiny"
      :class="{ always: thing.locked }"
      :title="
        thing.locked
          ? 'Unlock: it can be picked and moved in the picture again'
          : 'Lock against picking and moving in the picture'
      "
      :aria-label="`${thing.locked ? 'Unlock' : 'Lock'} ${thing.name}`"
      @click.stop="troupe.lock([thing.id], !thing.locked)"
    >
      <VineIcon :name="thing.locked ? 'lock' : 'unlock'" />
    </button>
    <button
      v-if="!renaming"
      class="tiny"
      :class="{ always: !thing.shown }"
      :title="thing.shown ? 'Hide in picture and export' : 'Show again'"
      :aria-label="`${thing.shown ? 'Hide' : 'Show'} ${thing.name}`"
      @click.stop="troupe.show(thing.id, !thing.shown)"
    >
      <VineIcon :name="thing.shown ? 'eye' : 'shut'" />
    </button>
    <TroupeMenu v-if="!renaming && near" :thing="thing" :of-several="isOfSeveral" @hang="emit('hang')">
      <button class="tiny" :aria-label="`More for ${thing.name}`" title="More" @click.stop>
        <VineIcon name="more" />
      </button>
    </TroupeMenu>
  </li>
</template>

<style scoped>
.item {
  display: flex;
  align-items: center;
  gap: 8px;
  height: 36px;
  border-radius: 99px 12px 12px 99px;
  padding-right: 6px;
  cursor: pointer;
  position: relative;
  content-visibility: auto;
  contain-intrinsic-height: 36px;
}
.item:hover {
  background: var(--paper-2);
}
.picked,
.picked:hover {
  background: var(--travel-pale);
}
.name {
  flex: 1;
  min-width: 0;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.picked .name {
  font-weight: 600;
}
.note {
  color: var(--ink-2);
  font-size: 11px;
  white-space: nowrap;
}
/* Said by the description of the line, so that its name is just the object's. */
.note::after {
  content: attr(data-note);
}
.item:hover .note,
.item:focus-within .note {
  display: none;
}
.tiny {
  display: none;
  width: 24px;
  height: 24px;
  border: 0;
  background: none;
  border-radius: 50%;
  place-items: center;
  cursor: pointer;
  color: var(--ink-2);
  flex: none;
  padding: 0;
}
.item:hover .tiny,
.item:focus-within .tiny,
.tiny.always {
  display: grid;
}
.tiny:hover {
  background: var(--paper-3);
}
.mark {
  position: absolute;
  left: 2px;
  top: 7px;
  bottom: 7px;
  width: 4px;
  border-radius: 2px;
}
.unseen .name,
.unseen .thumb {
  opacity: 0.5;
}
.rename {
  flex: 1;
  min-width: 0;
  border: 1px solid var(--travel);
  border-radius: var(--radius-s);
  background: var(--paper);
  padding: 3px 6px;
  font: inherit;
}
.fold {
  border: 0;
  background: none;
  padding: 0;
  cursor: pointer;
  margin-left: -2px;
  margin-right: -6px;
  color: var(--ink-2);
}
.fold .icon {
  width: 14px;
  height: 14px;
  transition: transform 0.12s;
}
.turned {
  transform: rotate(90deg);
}
.no-thumb {
  width: 28px;
  height: 28px;
  border-radius: 8px;
  background: var(--paper-3);
  display: grid;
  place-items: center;
  color: var(--ink-2);
  flex: none;
}
.before::before,
.after::after {
  content: "";
  position: absolute;
  left: 8px;
  right: 8px;
  height: 2px;
  background: var(--travel);
}
.before::before {
  top: -1px;
}
.after::after {
  bottom: -1px;
}
.onto {
  outline: 2px solid var(--travel);
  outline-offset: -2px;
}
</style>
