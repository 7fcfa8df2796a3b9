<script setup lang="ts">
/** Which objects are drawn on which bones of a figure: said once for all, each stays where it lies now. */
import { ElDialog, ElOption, ElSelect } from "element-plus";
import { computed, ref } from "vue";
import { bonesOf } from "@/api/figures";
import type { FigureObject } from "@/api/types";
import { useFigure } from "@/composables/useFigure";
import { useScene } from "@/stores/scene";

const props = defineProps<{ thing: FigureObject }>();
const open = defineModel<boolean>({ required: true });
const scene = useScene();
const one = useFigure();
const wrong = ref("");
const bones = computed(() => bonesOf(props.thing.figure));
/** What can be attached to a bone: anything that is no figure, and that nothing but this figure carries. */
const things = computed(() =>
  scene.objects
    .filter((other) => other.id !== props.thing.id && (!other.parent || other.parent === props.thing.id))
    .reverse(),
);
const hung = (bone: string): string[] =>
  scene.objects.filter((other) => other.parent === props.thing.id && other.bone === bone).map((other) => other.id);
const draft = ref<Record<string, string[]>>(
  Object.fromEntries(bones.value.map((bone) => [bone.name, hung(bone.name)])),
);
const changed = computed(() => {
  const parts: Record<string, string | null> = {};
  for (const bone of bones.value) {
    const before = hung(bone.name);
    for (const id of draft.value[bone.name] ?? []) if (!before.includes(id)) parts[id] = bone.name;
    for (const id of before) if (!(draft.value[bone.name] ?? []).includes(id) && !(id in parts)) parts[id] = null;
  }
  // What was put on another bone is no longer on the first.
  for (const [bone, ids] of Object.entries(draft.value)) for (const id of ids) if (parts[id] === null) parts[id] = bone;
  return parts;
});
/** An object is attached to one bone only: the last one it was put on. */
function put(bone: string, ids: string[]): void {
  const next = { ...draft.value };
  for (const other of Object.keys(next))
    if (other !== bone) next[other] = next[other]!.filter((id) => !ids.includes(id));
  next[bone] = ids;
  draft.value = next;
}
async function done(): Promise<void> {
  wrong.value = Object.keys(changed.value).length ? ((await one.hang(changed.value)) ?? "") : "";
  if (!wrong.value) open.value = false;
}
</script>

<template>
  <ElDialog v-model="open" :title="`Parts of ${thing.name}`" width="520" append-to-body>
    <p>
      Choose the bone for each object. Objects keep their position at this frame, then move with their bone, about their
      own pivot.
    </p>
    <div class="bones">
      <template v-for="bone in bones" :key="bone.name">
        <span>{{ bone.label }}</span>
        <ElSelect
          :model-value="draft[bone.name]"
          multiple
          filterable
          collapse-tags
          collapse-tags-tooltip
          size="small"
          placeholder="nothing"
          :aria-label="`On the bone ${bone.label}`"
          @update:model-value="put(bone.name, $event)"
        >
          <ElOption v-for="other in things" :key="other.id" :value="other.id" :label="other.name" />
        </ElSelect>
      </template>
    </div>
    <p v-if="wrong" class="wrong" role="alert">{{ wrong }}</p>
    <template #footer>
      <button class="plain" @click="open = false">Cancel</button>
      <button class="primary" @click="done">Attach them</button>
    </template>
  </ElDialog>
</template>

<style scoped>
p {
  margin: 0 0 10px;
  color: var(--ink-2);
}
.bones {
  display: grid;
  grid-template-columns: 170px 1fr;
  gap: 5px 10px;
  align-items: center;
  max-height: 52vh;
  overflow-y: auto;
  padding-right: 4px;
}
.wrong {
  color: #a32145;
  font-weight: 600;
  margin: 8px 0 0;
}
</style>
