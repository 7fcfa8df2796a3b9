<script setup lang="ts">
/** What an empty scene offers: four ways to begin, and a first scene step by step. */
import { ref } from "vue";
import VineIcon from "@/components/common/VineIcon.vue";
import FigureDialog from "@/components/figures/FigureDialog.vue";
import ElementsDialog from "@/components/parades/ElementsDialog.vue";
import { useOnceTrue } from "@/composables/useOnceTrue";
import { useAdding } from "@/composables/troupe/useAdding";
import { useGuide } from "@/stores/guide";
import { useSelection } from "@/stores/selection";

const selection = useSelection();
const { add } = useAdding();
const guide = useGuide();
const [figuring, choosing] = [ref(false), ref(false)];
const mounted = { figure: useOnceTrue(() => figuring.value), elements: useOnceTrue(() => choosing.value) };

/** While one is being added, a second press adds no second one. */
const adding = ref(false);
async function addShape(): Promise<void> {
  adding.value = true;
  await add("ellipse");
  adding.value = false;
}

const WAYS = [
  { icon: "draw", name: "Draw", says: "Lines and shapes with your own hand", run: () => (selection.tool = "draw") },
  {
    icon: "ellipse",
    name: "A shape",
    says: "An ellipse to move, squash and colour",
    run: () => void addShape(),
  },
  { icon: "figure", name: "A figure", says: "Two, four or six legs that walk", run: () => (figuring.value = true) },
  {
    icon: "leaf",
    name: "A ready motion",
    says: "One that moves already, to change",
    run: () => (choosing.value = true),
  },
] as const;
</script>

<template>
  <section class="ways" aria-label="Ways to start">
    <h2>Choose an object to move</h2>
    <div class="cards">
      <button v-for="way in WAYS" :key="way.name" :disabled="adding" @click="way.run()">
        <VineIcon :name="way.icon" />
        <strong>{{ way.name }}</strong>
        <span>{{ way.says }}</span>
      </button>
    </div>
    <p>
      Pictures can be dropped here too.
      <button class="link" title="F1" @click="guide.begin()">
        {{ guide.begun ? "Go on with the first scene" : "Show me: a first scene in two minutes" }}
      </button>
    </p>
    <FigureDialog v-if="mounted.figure.value" v-model="figuring" />
    <ElementsDialog v-if="mounted.elements.value" v-model="choosing" />
  </section>
</template>

<style scoped>
.ways {
  position: absolute;
  inset: 0;
  display: grid;
  place-content: center;
  justify-items: center;
  gap: 12px;
  padding-left: 56px;
  pointer-events: none;
}
.ways button {
  pointer-events: auto;
}
h2 {
  font-size: 17px;
}
.cards {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(116px, 132px));
  justify-content: center;
  gap: 10px;
  max-width: 580px;
}
.cards button {
  display: grid;
  justify-items: center;
  gap: 3px;
  padding: 12px 8px;
  border: 1px solid var(--line);
  border-radius: 14px;
  background: var(--paper);
  color: var(--ink);
  font: inherit;
  cursor: pointer;
}
.cards button:hover {
  border-color: var(--travel);
  background: var(--travel-pale);
}
.cards .icon {
  width: 26px;
  height: 26px;
  color: var(--travel);
}
.cards span {
  font-size: 12px;
  line-height: 1.25;
  color: var(--ink-2);
  text-align: center;
}
p {
  margin: 0;
  color: var(--ink-2);
}
.link {
  border: 0;
  background: none;
  padding: 2px 4px;
  font: inherit;
  font-weight: 600;
  color: var(--travel);
  text-decoration: underline;
  cursor: pointer;
}
</style>
