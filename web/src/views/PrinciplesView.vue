<script setup lang="ts">
/** The classic twelve, each alive, with what our rules do for it and when to leave it. */
import { onMounted, ref } from "vue";
import { useRouter } from "vue-router";
import { api } from "@/api/client";
import type { PrincipleWords } from "@/api/types";
import GuidePage from "@/components/common/GuidePage.vue";
import PrincipleCard from "@/components/principles/PrincipleCard.vue";
import { useMessages } from "@/stores/messages";

const router = useRouter();
const messages = useMessages();
const all = ref<readonly PrincipleWords[]>([]);
const opening = ref<string | null>(null);

onMounted(async () => {
  all.value = (await messages.attempt(api.principles)) ?? [];
});

/** A scene of one's own from a principle's: change anything, the page keeps its own. */
async function open(principle: PrincipleWords): Promise<void> {
  opening.value = principle.name;
  const made = await messages.attempt(async () => api.openFile(await api.principleFile(principle.name)));
  opening.value = null;
  if (made) await router.push(`/scenes/${made.id}`);
}
</script>

<template>
  <GuidePage
    heading="Principles"
    says="What animators have long known, and the rules that do it. Where there are two, the left one has plain keys."
    :card="320"
  >
    <PrincipleCard
      v-for="(principle, i) in all"
      :key="principle.name"
      :principle="principle"
      :place="i + 1"
      :opening="opening === principle.name"
      @open="open(principle)"
    />
  </GuidePage>
</template>
