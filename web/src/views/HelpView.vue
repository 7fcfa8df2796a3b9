<script setup lang="ts">
/** The guide as a page of its own. */
import { computed } from "vue";
import { useRouter } from "vue-router";
import GuideHead from "@/components/common/GuideHead.vue";
import HelpPages from "@/components/help/HelpPages.vue";

const props = defineProps<{ page?: string }>();
const router = useRouter();
const page = computed({
  get: () => props.page || "first-scene",
  set: (slug) => void router.replace(`/help/${slug}`),
});
</script>

<template>
  <main class="page">
    <GuideHead heading="Help" says="A small guide by task, in the order an animator works" />
    <HelpPages v-model="page" class="pages" />
  </main>
</template>

<style scoped>
.page {
  display: flex;
  flex-direction: column;
  height: 100%;
  background: var(--paper-2);
  padding: 28px 40px 0;
}
.pages {
  flex: 1;
  width: 100%;
  max-width: 1160px;
  margin: 0 auto;
}
</style>
