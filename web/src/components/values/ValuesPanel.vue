<script setup lang="ts">
/** Every value of the picked object at the playhead, with a leaf to key it. */
import { computed } from "vue";
import { isCamera, isDial, isShape } from "@/api/kinds";
import OutlineFields from "@/components/outline/OutlineFields.vue";
import { rowsRead } from "@/api/parades";
import PicturePanel from "@/components/pictures/PicturePanel.vue";
import CameraPanel from "@/components/camera/CameraPanel.vue";
import InsetPanel from "@/components/insets/InsetPanel.vue";
import ParadePanel from "@/components/parades/ParadePanel.vue";
import FigurePanel from "@/components/figures/FigurePanel.vue";
import DrivesList from "@/components/links/DrivesList.vue";
import DialFields from "@/components/dials/DialFields.vue";
import LimbFold from "@/components/values/LimbFold.vue";
import LookFields from "@/components/values/LookFields.vue";
import SeveralPanel from "@/components/values/SeveralPanel.vue";
import SharedValues from "@/components/values/SharedValues.vue";
import TextFields from "@/components/text/TextFields.vue";
import ValueRow from "@/components/values/ValueRow.vue";
import { textOf } from "@/composables/useText";
import { usePlayback } from "@/stores/playback";
import { useScene } from "@/stores/scene";
import { useSelection } from "@/stores/selection";
import { useSounds } from "@/stores/sounds";

const scene = useScene();
const selection = useSelection();
const playback = usePlayback();
const sounds = useSounds();
/** Of a parade, the rows that its arrangement reads. */
const rows = computed(() => {
  const thing = selection.thing;
  if (!thing) return [];
  // What a sound says goes before what is typed.
  if (isDial(thing) && sounds.isHeard(thing)) return [];
  if (isCamera(thing)) return selection.rows.filter((row) => CAMERA_ROWS.has(row.name));
  // Only a camera sees how far away an object is, and the children of one is as far away as that.
  const deep = scene.camera !== null && !thing.parent && !thing.pinned;
  const dashed = isShape(thing) && thing.line.dash.length > 0;
  // What a gradient colours has no one colour.
  const blended = isShape(thing) && thing.paints.fill;
  return rowsRead(thing, selection.rows).filter(
    (row) => (row.name !== "Depth" || deep) && (row.name !== "Dashes" || dashed) && (row.name !== "Fill" || !blended),
  );
});
/** The rows of a figure's limbs are folded, limb by limb. */
const groups = computed(() => {
  const byPart = Map.groupBy(rows.value, (row) => row.part ?? null);
  return [...byPart].map(([part, list]) => ({ part, rows: list }));
});
const CAMERA_ROWS = new Set(["Travel", "Rotation", "Zoom"]);
const names = computed(() => selection.picked.map((id) => scene.byId.get(id)?.name).join(", "));
const text = computed(() => textOf(selection.thing));

function flip(axis: "x" | "y"): void {
  if (selection.thing) void scene.edit([{ edit: "flip", object: selection.thing.id, axis, what: "picture" }]);
}
</script>

<template>
  <section class="values" aria-label="Values at this frame">
    <div class="panel-head">
      <h2 v-if="selection.several" :title="names">
        {{ selection.picked.length }} objects at frame {{ playback.textFrame }}
      </h2>
      <h2 v-else-if="selection.thing" class="one">
        <span class="name" dir="auto" :title="selection.thing.name">{{ selection.thing.name }}</span><span class="at">
          at frame {{ playback.textFrame }}</span
        >
      </h2>
      <h2 v-else>Values</h2>
    </div>
    <div v-if="selection.thing" class="rows">
      <template v-if="selection.several">
        <SeveralPanel />
        <SharedValues />
      </template>
      <template v-else>
        <FigurePanel v-if="selection.thing.kind === 'figure'" />
        <ParadePanel v-if="selection.thing.kind === 'parade'" :key="selection.thing.id" />
        <PicturePanel v-if="selection.thing.kind === 'picture'" :key="selection.thing.id" :thing="selection.thing" />
        <CameraPanel v-if="selection.thing.kind === 'camera'" :key="selection.thing.id" :thing="selection.thing" />
        <InsetPanel v-if="selection.thing.kind === 'inset'" :key="selection.thing.id" :thing="selection.thing" />
        <TextFields v-if="text && selection.thing.kind === 'shape'" :thing="selection.thing" :shape="text" />
        <template v-for="group in groups" :key="`${selection.thing.id} ${group.part ?? ''}`">
          <LimbFold v-if="group.part" :id="selection.thing.id" :part="group.part" :rows="group.rows" />
          <template v-if="!group.part || selection.isLimbOpen(selection.thing.id, group.part)">
            <ValueRow
              v-for="row in group.rows"
              :key="`${selection.thing.id} ${row.name}`"
              :thing="selection.thing"
              :row="row"
            />
          </template>
        </template>
        <DialFields v-if="selection.thing.kind === 'dial'" :thing="selection.thing" />
        <div v-else-if="selection.thing.kind !== 'camera'" class="flips">
          <button class="chip" title="Mirror it left to right, about its pivot" @click="flip('x')">Flip ↔</button>
          <button class="chip" title="Mirror it top to bottom, about its pivot" @click="flip('y')">Flip ↕</button>
        </div>
        <LookFields
          v-if="selection.object && selection.object.kind !== 'camera'"
          :key="selection.object.id"
          :thing="selection.object"
        />
        <DrivesList :id="selection.thing.id" />
        <OutlineFields v-if="selection.thing.kind === 'shape'" :key="selection.thing.id" :thing="selection.thing" />
      </template>
    </div>
    <p v-else class="empty">
      Select an object in the picture or the Troupe to edit its values at this frame. Click the leaf beside a value to
      key it.
    </p>
  </section>
</template>

<style scoped>
.values {
  display: flex;
  flex-direction: column;
  min-height: 0;
  border-left: 1px solid var(--line);
  background: var(--paper);
}
h2 {
  font-size: 13px;
}
h2,
.name {
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
/* However long the name is, the frame is told. */
.one {
  display: flex;
}
.at {
  flex: none;
  white-space: pre;
}
.rows {
  overflow-y: auto;
  flex: 1;
  padding-bottom: 8px;
}
.empty {
  color: var(--ink-2);
  padding: 0 14px;
}
.flips {
  display: flex;
  gap: 6px;
  margin: 8px 14px 0;
}
</style>
