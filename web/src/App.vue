<script setup lang="ts">
/** The application: whichever view the address asks for. */
import { RouterView } from "vue-router";
</script>

<template>
  <RouterView />
</template>
