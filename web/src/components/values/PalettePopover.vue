<script setup lang="ts">
/** Colours to choose from: the palette kept with the scene, those chosen last, and any colour of the picture. */
import { computed, ref } from "vue";
import PopUp from "@/components/common/PopUp.vue";
import VineIcon from "@/components/common/VineIcon.vue";
import { useRecentColours } from "@/composables/useRecentColours";
import { useOutline } from "@/stores/outline";
import { useScene } from "@/stores/scene";

const props = defineProps<{ label: string; hex: string }>();
const emit = defineEmits<{ choose: [hex: string] }>();
const scene = useScene();
const outline = useOutline();
const { recent } = useRecentColours();
const open = ref(false);

const palette = computed(() => scene.head?.palette ?? []);
const kept = computed(() => palette.value.includes(props.hex));

function choose(hex: string): void {
  open.value = false;
  if (hex !== props.hex) emit("choose", hex);
}

/** Add the colour to the scene's palette, or remove it. */
function keep(): void {
  const colours = kept.value ? palette.value.filter((one) => one !== props.hex) : [...palette.value, props.hex];
  void scene.edit([{ edit: "set-palette", colours }]);
}

/** The next press in the picture takes its colour. */
function take(): void {
  open.value = false;
  outline.taking = (hex) => emit("choose", hex);
}
</script>

<template>
  <PopUp v-model:visible="open" :width="220" placement="left">
    <template #reference>
      <button
        class="open"
        :class="{ on: outline.taking }"
        :aria-label="`${label}: palette`"
        title="The palette of this scene, recent colours, a colour from the picture"
      >
        <VineIcon name="palette" />
      </button>
    </template>
    <h3>Palette of this scene</h3>
    <div class="swatches">
      <button
        v-for="one in palette"
        :key="one"
        class="swatch"
        :class="{ on: one === hex }"
        :style="{ background: one }"
        :title="one"
        :aria-label="`Palette ${one}`"
        @click="choose(one)"
      />
      <span v-if="!palette.length" class="none">none kept yet</span>
    </div>
    <button class="chip small" @click="keep">{{ kept ? "Take this one out" : "Keep this one" }}</button>
    <h3>Recent</h3>
    <div class="swatches">
      <button
        v-for="one in recent"
        :key="one"
        class="swatch"
        :style="{ background: one }"
        :title="one"
        :aria-label="`Recent ${one}`"
        @click="choose(one)"
      />
      <span v-if="!recent.length" class="none">none yet</span>
    </div>
    <button class="chip small" title="Then click anywhere in the picture; Escape cancels" @click="take">
      Pick a colour from the picture
    </button>
  </PopUp>
</template>

<style scoped>
.open {
  border: 0;
  background: none;
  padding: 0;
  width: 14px;
  height: 22px;
  flex: none;
  display: grid;
  place-items: center;
  cursor: pointer;
  color: var(--ink-2);
}
.open :deep(svg) {
  width: 13px;
  height: 13px;
}
/* Where there is no room beside the number, it lies over its end while it is wanted. */
@container (max-width: 112px) {
  .open {
    position: absolute;
    right: 1px;
    background: var(--paper-3);
    opacity: 0;
  }
  .open:hover,
  .open:focus-visible,
  .open.on {
    opacity: 1;
  }
}
.open.on {
  color: var(--playhead);
}
h3 {
  font-size: 12px;
  margin: 6px 0 4px;
}
.swatches {
  display: flex;
  flex-wrap: wrap;
  gap: 5px;
  margin-bottom: 6px;
}
.swatch {
  width: 20px;
  height: 20px;
  border-radius: 50%;
  border: 1px solid #0003;
  cursor: pointer;
  padding: 0;
}
.swatch.on {
  outline: 2px solid var(--travel);
  outline-offset: 1px;
}
.none {
  color: var(--ink-2);
  font-size: 12px;
}
</style>
