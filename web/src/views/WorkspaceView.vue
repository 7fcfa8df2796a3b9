<script setup lang="ts">
import { onMounted, ref, watchEffect } from "vue";
import { paintFrame } from "@/picture/paint";
import { usePlayback } from "@/stores/playback";
import { useScene } from "@/stores/scene";

const props = defineProps<{ id: string }>();
const scene = useScene();
const playback = usePlayback();
const canvas = ref<HTMLCanvasElement>();
onMounted(() => scene.open(props.id));
watchEffect(() => {
  const ctx = canvas.value?.getContext("2d");
  if (ctx && scene.motion) paintFrame(ctx, scene.motion, playback.frame, ctx.canvas.width, ctx.canvas.height);
});
</script>

<template>
  <main v-if="scene.head">
    <h1>{{ scene.head.name }}</h1>
    <button @click="playback.toggle">{{ playback.playing ? "Pause" : "Play" }}</button>
    <input type="number" aria-label="Frame" :value="playback.frame" @change="playback.goTo(+($event.target as HTMLInputElement).value)" />
    <a :href="`/api/scenes/${id}/file`">Save as file</a>
    <canvas ref="canvas" :width="scene.head.size[0] / 2" :height="scene.head.size[1] / 2" />
  </main>
</template>
