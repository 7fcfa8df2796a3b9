<script setup lang="ts">
/** A scene on the Shelf: its picture, which moves while it is pointed at or focused. */
import { ElDropdownItem } from "element-plus";
import { computed, ref, shallowRef } from "vue";
import { RouterLink } from "vue-router";
import { api } from "@/api/client";
import { type Motion, readMotion } from "@/api/motion";
import type { Summary } from "@/api/types";
import MotionPicture from "@/components/common/MotionPicture.vue";
import PopUpMenu from "@/components/common/PopUpMenu.vue";
import VineIcon from "@/components/common/VineIcon.vue";

const props = defineProps<{ scene: Summary }>();
const emit = defineEmits<{ duplicate: []; size: []; remove: [] }>();
const motion = shallowRef<Motion | null>(null);
const playing = ref(false);

/** The motion is fetched when the card is first pointed at or focused; until then a still from the server is shown. */
function play(): void {
  playing.value = true;
  if (asked) return;
  asked = true;
  void api.motion(props.scene.id).then(
    (message) => (motion.value = readMotion(message)),
    () => (asked = false),
  );
}
let asked = false;

const WIDTH = 560;
const height = Math.round((WIDTH / props.scene.width) * props.scene.height);
const CHOICES: Readonly<Record<string, () => void>> = {
  duplicate: () => emit("duplicate"),
  size: () => emit("size"),
  remove: () => emit("remove"),
};
const choose = (command: string): void => CHOICES[command]?.();
const facts = computed(() => {
  const { length, fps, objects } = props.scene;
  return `${(length / fps).toFixed(1)} s at ${fps} fps · ${objects} ${objects === 1 ? "object" : "objects"}`;
});
</script>

<template>
  <article
    class="card"
    @pointerenter="play"
    @pointerleave="playing = false"
    @focusin="play"
    @focusout="playing = false"
  >
    <RouterLink :to="`/scenes/${scene.id}`" class="open">
      <div class="picture">
        <MotionPicture v-if="motion" :motion="motion" :playing="playing" :width="WIDTH" :height="height" />
        <img
          v-else
          :src="`/api/scenes/${scene.id}/preview?revision=${scene.revision}`"
          :width="WIDTH"
          :height="height"
          loading="lazy"
          alt=""
          draggable="false"
        />
      </div>
      <h2 dir="auto"><span class="sr-only" dir="ltr">Open </span>{{ scene.name }}</h2>
      <p>{{ facts }}</p>
    </RouterLink>
    <PopUpMenu placement="bottom-end" class="menu" @command="choose">
      <button class="round" :aria-label="`More for ${scene.name}`" title="More"><VineIcon name="more" /></button>
      <template #items>
        <ElDropdownItem command="duplicate">Duplicate</ElDropdownItem>
        <li class="el-dropdown-menu__item"><a :href="`/api/scenes/${scene.id}/file`" download>Save as file</a></li>
        <ElDropdownItem command="size">Size and history…</ElDropdownItem>
        <ElDropdownItem command="remove" divided>Delete</ElDropdownItem>
      </template>
    </PopUpMenu>
  </article>
</template>

<style scoped>
/* A press on the still is one on the link: the motion that takes its place a moment later must not swallow it. */
.picture > * {
  pointer-events: none;
}
.card {
  position: relative;
  background: var(--paper);
  border: 1px solid var(--line);
  border-radius: 16px;
  overflow: hidden;
  transition: box-shadow 0.15s;
}
.card:hover,
.card:focus-within {
  box-shadow: 0 6px 24px #5a4a2022;
}
.open {
  display: block;
  color: inherit;
  text-decoration: none;
}
.picture {
  aspect-ratio: 16 / 9;
  background: var(--paper-3);
  display: grid;
  place-items: center;
  overflow: hidden;
}
img {
  max-width: 100%;
  max-height: 100%;
  height: auto;
  display: block;
}
h2 {
  font-size: 16px;
  padding: 10px 48px 0 14px;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
p {
  margin: 2px 14px 12px;
  color: var(--ink-2);
  font-size: 13px;
}
.menu {
  position: absolute;
  right: 8px;
  bottom: 16px;
}
a {
  color: inherit;
  text-decoration: none;
}
</style>
