<script setup lang="ts">
/** The resting frame as exports paint it, with motion blur, over the picture: asked for when the hand rests. */
import { watchDebounced } from "@vueuse/core";
import { computed, ref, watch } from "vue";
import { usePlayback } from "@/stores/playback";
import { useScene } from "@/stores/scene";

/** `scale`: how many device pixels one of the picture is. */
const props = defineProps<{ scale: number }>();
const scene = useScene();
const playback = usePlayback();
const source = ref<string | null>(null);
const loaded = ref(false);

const wanted = computed(() =>
  playback.playing || scene.look || !scene.id
    ? null
    : `/api/scenes/${scene.id}/blurred?${new URLSearchParams({
        frame: String(playback.frame),
        scale: String(Math.min(2, props.scale)),
        revision: String(scene.revision),
      })}`,
);
// What is no longer so is not shown for a moment longer.
watch(wanted, () => {
  source.value = null;
  loaded.value = false;
});
watchDebounced(wanted, (now) => (source.value = now), { debounce: 180, immediate: true });
</script>

<template>
  <img
    v-if="source"
    v-show="loaded"
    class="blurred"
    :src="source"
    alt=""
    data-testid="blurred-frame"
    @load="loaded = true"
  />
</template>

<style scoped>
.blurred {
  position: absolute;
  border-radius: 4px;
  pointer-events: none;
}
</style>
