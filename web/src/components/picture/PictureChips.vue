<script setup lang="ts">
/** Overlays of the picture: path, onion skin, snapping, zoom. */
import { ElDropdownItem } from "element-plus";
import { computed } from "vue";
import PopUp from "@/components/common/PopUp.vue";
import PopUpMenu from "@/components/common/PopUpMenu.vue";
import VariantActions from "@/components/rehearsals/VariantActions.vue";
import NumberField from "@/components/common/NumberField.vue";
import type { PictureView } from "@/composables/picture/usePictureView";
import { useInside } from "@/stores/inside";
import { usePanels } from "@/stores/panels";
import { useScene } from "@/stores/scene";
import { useSelection } from "@/stores/selection";

const props = defineProps<{ view: PictureView }>();
const scene = useScene();
const selection = useSelection();
const inside = useInside();
const panels = usePanels();
const percent = computed(() => `${Math.round(props.view.scale.value * 100)} %`);
const emit = defineEmits<{ zoom: [what: "fit" | "picked" | "whole"] }>();
const choose = (zoom: number | "fit" | "picked" | "whole"): void =>
  typeof zoom === "number" ? props.view.zoomTo(zoom) : emit("zoom", zoom);
const set = (change: Partial<typeof selection.onion>): void =>
  void (selection.onion = { ...selection.onion, ...change });
const snap = (change: Partial<typeof selection.snap>): void => void (selection.snap = { ...selection.snap, ...change });
const others = computed(() => scene.objects.filter((one) => one.id !== selection.objectId));
</script>

<template>
  <div class="chips" role="toolbar" aria-label="Overlays of the picture">
    <VariantActions class="variant" />
    <button
      class="chip"
      :class="{ on: panels.big }"
      role="switch"
      :aria-checked="panels.big"
      :title="panels.big ? 'Show the panels (Q)' : 'Hide all panels (Q)'"
      @click="panels.big = !panels.big"
    >
      big picture
    </button>
    <button
      class="chip"
      :class="{ on: selection.showPath }"
      role="switch"
      :aria-checked="selection.showPath"
      title="The way the picked object takes: one dot a frame, close where it is slow, wide where it is fast (T)"
      @click="selection.showPath = !selection.showPath"
    >
      path &amp; spacing
    </button>
    <button
      class="chip"
      :class="{ on: selection.showDrives }"
      role="switch"
      :aria-checked="selection.showDrives"
      title="Who drives the picked object, and whom it drives"
      @click="selection.showDrives = !selection.showDrives"
    >
      links
    </button>
    <button
      v-if="scene.head?.blur"
      class="chip"
      :class="{ on: selection.showBlur }"
      role="switch"
      :aria-checked="selection.showBlur"
      title="Shows motion blur on the current frame, as exports do"
      @click="selection.showBlur = !selection.showBlur"
    >
      blur
    </button>
    <button
      v-if="scene.camera"
      class="chip"
      :class="{ on: scene.wholeStage }"
      role="switch"
      :aria-checked="scene.wholeStage"
      title="The whole stage with the frame of the camera in it, instead of what the camera sees (C)"
      @click="scene.wholeStage = !scene.wholeStage"
    >
      whole stage
    </button>
    <button
      v-if="inside.trail.at(-1)?.use"
      class="chip"
      :class="{ on: inside.showAround }"
      role="switch"
      :aria-checked="inside.showAround"
      title="Shows the scene around this inset, dimmed"
      @click="inside.showAround = !inside.showAround"
    >
      around
    </button>
    <PopUp :width="250" placement="top">
      <template #reference
        ><button
          class="chip"
          :class="{ on: selection.onion.on }"
          title="Onion skin: the picked object some frames before and after (G)"
        >
          onion {{ selection.onion.before }}·{{ selection.onion.after }}
        </button></template
      >
      <div class="panel" role="group" aria-label="Onion skin">
        <label class="whole"
          ><input
            type="checkbox"
            :checked="selection.onion.on"
            @change="set({ on: ($event.target as HTMLInputElement).checked })"
          />
          show onion skin</label
        >
        <span><i class="before" />before</span
        ><NumberField
          label="Ghosts before"
          :value="selection.onion.before"
          :digits="0"
          :low="0"
          :high="12"
          @change="set({ before: Math.round($event) })"
        />
        <span><i class="after" />after</span
        ><NumberField
          label="Ghosts after"
          :value="selection.onion.after"
          :digits="0"
          :low="0"
          :high="12"
          @change="set({ after: Math.round($event) })"
        />
        <span>every</span
        ><NumberField
          label="Frames from ghost to ghost"
          :value="selection.onion.every"
          unit="frames"
          :digits="0"
          :low="1"
          :high="200"
          :disabled="selection.onion.keys"
          @change="set({ every: Math.round($event) })"
        />
        <label class="whole"
          ><input
            type="checkbox"
            :checked="selection.onion.keys"
            @change="set({ keys: ($event.target as HTMLInputElement).checked })"
          />
          on keys only</label
        >
        <span>and of</span>
        <select
          aria-label="Ghost of another object"
          :value="selection.onion.also ?? ''"
          @change="set({ also: ($event.target as HTMLSelectElement).value || null })"
        >
          <option value="">no other</option>
          <option v-for="one in others" :key="one.id" :value="one.id">{{ one.name }}</option>
        </select>
      </div>
    </PopUp>
    <PopUp :width="230" placement="top">
      <template #reference
        ><button
          class="chip"
          :class="{ on: selection.snap.on }"
          title="Snap objects while you move them; hold Alt to move freely"
        >
          snap
        </button></template
      >
      <div class="panel" role="group" aria-label="Snapping">
        <label class="whole"
          ><input
            type="checkbox"
            :checked="selection.snap.on"
            @change="snap({ on: ($event.target as HTMLInputElement).checked })"
          />
          snap to thirds, quarters, centre, edges and other objects</label
        >
        <span>grid across</span
        ><NumberField
          label="Columns of the grid"
          :value="selection.snap.across"
          :digits="0"
          :low="0"
          :high="64"
          hint="0 is no grid"
          @change="snap({ across: Math.round($event) })"
        />
        <span>grid down</span
        ><NumberField
          label="Rows of the grid"
          :value="selection.snap.down"
          :digits="0"
          :low="0"
          :high="64"
          hint="0 is no grid"
          @change="snap({ down: Math.round($event) })"
        />
      </div>
    </PopUp>
    <PopUpMenu @command="choose">
      <button
        class="chip"
        title="Zoom: Ctrl and wheel, two fingers, or choose here; hold Z or the middle button and drag to move about"
        :aria-label="`Zoom ${percent}`"
      >
        {{ percent }}
      </button>
      <template #items>
        <ElDropdownItem command="fit">Fit <kbd>5</kbd></ElDropdownItem>
        <ElDropdownItem command="picked" :disabled="!selection.object">The selection <kbd>6</kbd></ElDropdownItem>
        <ElDropdownItem command="whole">100 % <kbd>7</kbd></ElDropdownItem>
        <ElDropdownItem v-for="z in [0.25, 0.5, 2, 4]" :key="z" :command="z">{{ z * 100 }} %</ElDropdownItem>
      </template>
    </PopUpMenu>
  </div>
</template>

<style scoped>
.chips {
  position: absolute;
  right: 0;
  left: 0;
  bottom: 0;
  height: var(--chips);
  padding: 0 10px;
  display: flex;
  align-items: center;
  /* What has no room at all is scrolled to. */
  justify-content: safe flex-end;
  overflow-x: auto;
  scrollbar-width: none;
  gap: 7px;
  background: var(--paper-3);
  user-select: none;
}
.chips > .chip {
  flex: none;
}
@media (max-width: 1100px) {
  .chips {
    gap: 4px;
    padding: 0 6px;
  }
  .chips > .chip {
    padding-inline: 7px;
    font-size: 12px;
  }
}
.variant {
  margin-right: auto;
}
/* The same is said, and offered, among the rehearsals. */
@media (max-width: 1240px) {
  .variant {
    display: none;
  }
}
.on {
  color: #a31f43;
  border-color: var(--playhead);
}
.panel {
  display: grid;
  grid-template-columns: 90px 1fr;
  gap: 6px 8px;
  align-items: center;
}
.whole {
  grid-column: 1 / -1;
  display: flex;
  gap: 7px;
  align-items: baseline;
}
i {
  display: inline-block;
  width: 9px;
  height: 9px;
  border-radius: 50%;
  margin-right: 6px;
}
.before {
  background: var(--playhead);
}
.after {
  background: var(--look);
}
select {
  min-width: 0;
}
</style>
