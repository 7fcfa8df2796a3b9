<script setup lang="ts">
/** A scene on the Shelf: its picture, which moves while it is pointed at or focused. */
import { useIntersectionObserver, useRafFn } from "@vueuse/core";
import { ElDropdown, ElDropdownItem, ElDropdownMenu } from "element-plus";
import { ref, shallowRef, watch } from "vue";
import { RouterLink } from "vue-router";
import { api } from "@/api/client";
import { type Motion, readMotion } from "@/api/motion";
import type { Summary } from "@/api/types";
import VineIcon from "@/components/common/VineIcon.vue";
import { paintFrame } from "@/picture/paint";

const props = defineProps<{ scene: Summary }>();
const emit = defineEmits<{ duplicate: []; remove: [] }>();
const canvas = ref<HTMLCanvasElement>();
const card = ref<HTMLElement>();
const motion = shallowRef<Motion | null>(null);
const frame = ref(0);

const seen = useIntersectionObserver(card, ([entry]) => {
  if (!entry?.isIntersecting) return;
  seen.stop();
  void api.motion(props.scene.id).then((message) => {
    motion.value = readMotion(message);
    // The first picture shows the scene under way, not before anything has entered.
    frame.value = Math.floor(motion.value.length / 3);
  }, () => undefined);
});

let begun = 0;
const raf = useRafFn(({ timestamp }) => {
  if (!motion.value) return;
  begun ||= timestamp;
  frame.value = Math.floor(((timestamp - begun) / 1000) * motion.value.fps) % motion.value.length;
}, { immediate: false });

function play(): void {
  begun = 0;
  raf.resume();
}

watch([motion, frame, canvas], () => {
  const ctx = canvas.value?.getContext("2d");
  if (ctx && motion.value) paintFrame(ctx, motion.value, frame.value, ctx.canvas.width, ctx.canvas.height);
}, { flush: "post" });

const WIDTH = 560;
const height = Math.round((WIDTH / props.scene.width) * props.scene.height);
const choose = (command: string): void => (command === "duplicate" ? emit("duplicate") : emit("remove"));
</script>

<template>
  <article ref="card" class="card" @pointerenter="play" @pointerleave="raf.pause" @focusin="play" @focusout="raf.pause">
    <RouterLink :to="`/scenes/${scene.id}`" class="open" :aria-label="`Open ${scene.name}`">
      <div class="picture"><canvas ref="canvas" :width="WIDTH" :height="height" aria-hidden="true" /></div>
      <h2>{{ scene.name }}</h2>
      <p>{{ (scene.length / scene.fps).toFixed(1) }} s at {{ scene.fps }} fps · {{ scene.objects }} {{ scene.objects === 1 ? "object" : "objects" }}</p>
    </RouterLink>
    <ElDropdown trigger="click" placement="bottom-end" class="menu" @command="choose">
      <button class="round" :aria-label="`More for ${scene.name}`" title="More"><VineIcon name="more" /></button>
      <template #dropdown>
        <ElDropdownMenu>
          <ElDropdownItem command="duplicate">Duplicate</ElDropdownItem>
          <li class="el-dropdown-menu__item"><a :href="`/api/scenes/${scene.id}/file`" download>Save as file</a></li>
          <ElDropdownItem command="remove" divided>Delete</ElDropdownItem>
        </ElDropdownMenu>
      </template>
    </ElDropdown>
  </article>
</template>

<style scoped>
.card { position: relative; background: var(--paper); border: 1px solid var(--line); border-radius: 16px; overflow: hidden; transition: box-shadow 0.15s; }
.card:hover, .card:focus-within { box-shadow: 0 6px 24px #5a4a2022; }
.open { display: block; color: inherit; text-decoration: none; }
.picture { aspect-ratio: 16 / 9; background: var(--paper-3); display: grid; place-items: center; overflow: hidden; }
canvas { max-width: 100%; max-height: 100%; display: block; }
h2 { font-size: 16px; padding: 10px 48px 0 14px; overflow: hidden; text-overflow: ellipsis; white-space: nowrap; }
p { margin: 2px 14px 12px; color: var(--ink-2); font-size: 13px; }
.menu { position: absolute; right: 8px; bottom: 16px; }
a { color: inherit; text-decoration: none; }
</style>
