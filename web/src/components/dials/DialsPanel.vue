<script setup lang="ts">
/**
 * The dials of the scene: shared values that anything can read, each with what it is now. Drag one onto a value to
 * link that to it.
 */
import { ElDropdownItem } from "element-plus";
import { nextTick, ref, watch } from "vue";
import { numberAt, valuesAt } from "@/api/motion";
import { dialWords } from "@/api/dials";
import type { DialThing } from "@/api/types";
import PopUpMenu from "@/components/common/PopUpMenu.vue";
import VineIcon from "@/components/common/VineIcon.vue";
import { useDials } from "@/composables/useDials";
import { colourAt } from "@/picture/paint";
import { useLinking } from "@/stores/linking";
import { usePlayback } from "@/stores/playback";
import { useScene } from "@/stores/scene";
import { useSelection } from "@/stores/selection";

const scene = useScene();
const selection = useSelection();
const playback = usePlayback();
const linking = useLinking();
const dials = useDials();
const draft = ref("");
const field = ref<HTMLInputElement[]>([]);

watch(
  () => selection.renaming,
  async (id) => {
    const thing = scene.dials.find((one) => one.id === id);
    if (!thing) return;
    draft.value = thing.name;
    await nextTick();
    field.value[0]?.focus();
    field.value[0]?.select();
  },
);

const baked = (thing: DialThing) => scene.motion?.objects.get(thing.id)?.channels.value;
const tint = (thing: DialThing): string | null =>
  baked(thing)?.width === 4 ? colourAt(baked(thing), playback.textFrame, 1) : null;
function shown(thing: DialThing): string {
  const rows = baked(thing);
  if (!rows || rows.width === 4) return "";
  const words = dialWords(thing.dial);
  const step = words.step * words.shown;
  const digits = step < 0.1 ? 2 : step < 1 ? 1 : 0;
  return `${(numberAt(rows, playback.textFrame) * words.shown).toFixed(digits)}${words.unit}`;
}
/** How far round the small face its pointer stands. */
function turn(thing: DialThing): number {
  const rows = baked(thing);
  const [low, high] = [thing.dial.low ?? 0, thing.dial.high ?? 1];
  return rows && rows.width === 1
    ? -130 + 260 * Math.min(1, Math.max(0, (numberAt(rows, playback.textFrame) - low) / (high - low || 1)))
    : 0;
}
const lightness = (thing: DialThing): number =>
  baked(thing) ? Math.max(...valuesAt(baked(thing)!, playback.textFrame).slice(0, 3)) : 1;

async function rename(thing: DialThing): Promise<void> {
  if (selection.renaming !== thing.id) return;
  selection.renaming = null;
  const name = draft.value.trim();
  if (name && name !== thing.name) await scene.edit([{ edit: "set-dial", id: thing.dial.id, name }]);
}
function choose(command: string, thing: DialThing): void {
  selection.pick(thing.id);
  if (command === "rename") selection.renaming = thing.id;
  else if (command === "take") linking.takers = thing.id;
  else dials.remove(thing);
}
</script>

<template>
  <section class="dials" aria-label="Dials">
    <div class="panel-head">
      <h2>Dials</h2>
      <PopUpMenu placement="bottom-end" @command="dials.add">
        <button class="round small" title="Add a dial: a value that any channel can read" aria-label="Add a dial">
          <VineIcon name="add" />
        </button>
        <template #items>
          <ElDropdownItem command="number">A number, such as wind</ElDropdownItem>
          <ElDropdownItem command="colour">A colour, such as light</ElDropdownItem>
        </template>
      </PopUpMenu>
    </div>
    <ul v-if="scene.dials.length" role="tree" aria-label="Dials" tabindex="-1">
      <li
        v-for="thing in scene.dials"
        :key="thing.id"
        class="dial"
        :class="{ picked: selection.objectId === thing.id }"
        role="treeitem"
        tabindex="0"
        :data-link-object="thing.id"
        data-link-channel="value"
        :aria-selected="selection.objectId === thing.id"
        :aria-label="thing.name"
        :aria-description="shown(thing)"
        :title="`${thing.name}: drag its face onto a value, or onto something in the picture, to link that to it`"
        @click="selection.pick(thing.id)"
        @dblclick="selection.renaming = thing.id"
        @keydown.enter.self.prevent="selection.pick(thing.id)"
        @keydown.space.self.prevent="selection.pick(thing.id)"
        @keydown.f2.prevent="selection.renaming = thing.id"
      >
        <svg
          class="face"
          viewBox="0 0 28 28"
          aria-hidden="true"
          @pointerdown="linking.begin($event, { object: thing.id, channel: 'value' })"
        >
          <rect width="28" height="28" rx="8" />
          <circle
            v-if="tint(thing)"
            cx="14"
            cy="14"
            r="7.5"
            :style="{ fill: tint(thing)!, stroke: lightness(thing) > 0.8 ? '#b9ad93' : 'none' }"
          />
          <g v-else>
            <path class="arc" d="M7.8 19.2a8.1 8.1 0 1 1 12.4 0" />
            <path class="hand" d="M14 14.5V7.5" :transform="`rotate(${turn(thing)} 14 14.5)`" />
          </g>
        </svg>
        <input
          v-if="selection.renaming === thing.id"
          ref="field"
          v-model="draft"
          class="rename"
          maxlength="80"
          aria-label="New name"
          @keydown.enter.prevent="rename(thing)"
          @keydown.esc.stop="selection.renaming = null"
          @blur="rename(thing)"
          @click.stop
          @dblclick.stop
        />
        <span v-else class="name" dir="auto">{{ thing.name }}</span>
        <span class="now" :data-now="shown(thing)" />
        <PopUpMenu placement="bottom-end" @command="choose($event, thing)">
          <button class="tiny" :aria-label="`More for ${thing.name}`" @click.stop><VineIcon name="more" /></button>
          <template #items>
            <ElDropdownItem command="take">Link objects to it…</ElDropdownItem>
            <ElDropdownItem command="rename" divided>Rename (F2)</ElDropdownItem>
            <ElDropdownItem command="remove">Delete</ElDropdownItem>
          </template>
        </PopUpMenu>
      </li>
    </ul>
    <p v-else class="empty">Values that several objects share, such as wind.</p>
  </section>
</template>

<style scoped>
.dials {
  border-top: 1px solid var(--line);
  flex: none;
  max-height: 38%;
  display: flex;
  flex-direction: column;
  min-height: 0;
}
h2 {
  font-size: 13px;
}
.small {
  width: 26px;
  height: 26px;
}
ul {
  list-style: none;
  margin: 0;
  padding: 0 6px 6px;
  overflow-y: auto;
}
.dial {
  display: flex;
  align-items: center;
  gap: 8px;
  height: 34px;
  padding: 0 6px;
  border-radius: 99px 12px 12px 99px;
  cursor: pointer;
}
.dial:hover {
  background: var(--paper-2);
}
.picked,
.picked:hover {
  background: var(--look-pale);
}
.picked .name {
  font-weight: 600;
}
.face {
  width: 28px;
  height: 28px;
  flex: none;
  cursor: grab;
  touch-action: none;
}
.face rect {
  fill: var(--paper-3);
}
.arc {
  fill: none;
  stroke: #b9ad93;
  stroke-width: 2;
  stroke-linecap: round;
}
.hand {
  stroke: var(--look);
  stroke-width: 2.2;
  stroke-linecap: round;
}
.name {
  flex: 1;
  min-width: 0;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
/* Said by the description of the line, so that its name is just the dial's. */
.now::after {
  content: attr(data-now);
}
.now {
  font: 700 13px var(--mono);
  color: var(--look);
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
  padding: 0;
}
.dial:hover .tiny,
.dial:focus-within .tiny {
  display: grid;
}
.tiny:hover {
  background: var(--paper-3);
}
.empty {
  margin: 0;
  padding: 0 14px 10px;
  color: var(--ink-2);
  font-size: 12px;
}
</style>
