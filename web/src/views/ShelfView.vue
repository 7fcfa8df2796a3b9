<script setup lang="ts">
import { onMounted, ref } from "vue";
import { RouterLink, useRouter } from "vue-router";
import { api } from "@/api/client";
import type { Summary } from "@/api/types";

const scenes = ref<Summary[]>([]);
const router = useRouter();
onMounted(async () => (scenes.value = (await api.shelf()).scenes));
async function create() {
  const made = await api.createScene({});
  await router.push(`/scenes/${made.id}`);
}
</script>

<template>
  <main>
    <h1>Shelf</h1>
    <button @click="create">New scene</button>
    <p v-for="scene in scenes" :key="scene.id"><RouterLink :to="`/scenes/${scene.id}`">{{ scene.name }}</RouterLink></p>
  </main>
</template>
