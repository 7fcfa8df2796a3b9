<script setup lang="ts">
/** The guide over the scene at work. */
import { ElDialog } from "element-plus";
import { ref } from "vue";
import HelpPages from "@/components/help/HelpPages.vue";

const open = defineModel<boolean>({ required: true });
const page = ref("first-scene");
const pages = ref<InstanceType<typeof HelpPages>>();
</script>

<template>
  <ElDialog v-model="open" title="Help" width="1120" top="5vh" class="help-dialog" @opened="pages?.focus()">
    <div class="room"><HelpPages ref="pages" v-model="page" /></div>
  </ElDialog>
</template>

<style scoped>
.room {
  height: 76vh;
}
</style>
