<script setup lang="ts">
/** The menu of an object's line in the troupe; what opens it comes in the slot. */
import { ElDropdownItem } from "element-plus";
import type { SceneObject } from "@/api/types";
import PopUpMenu from "@/components/common/PopUpMenu.vue";
import TagSwatches from "@/components/troupe/TagSwatches.vue";
import { useInsets } from "@/composables/useInsets";
import { useSeveral } from "@/composables/several/useSeveral";
import { useTroupe } from "@/composables/troupe/useTroupe";
import { useInside } from "@/stores/inside";
import { useScene } from "@/stores/scene";
import { useSelection } from "@/stores/selection";

/** `ofSeveral`: whether what is chosen is done to all that are picked together. */
const props = defineProps<{ thing: SceneObject; ofSeveral: boolean }>();
const emit = defineEmits<{ hang: [] }>();
const scene = useScene();
const selection = useSelection();
const troupe = useTroupe();
const several = useSeveral();
const insets = useInsets();
const inside = useInside();

function choose(command: string): void {
  const id = props.thing.id;
  if (!props.ofSeveral) selection.pick(id);
  const actions: Record<string, () => void> = {
    rename: () => (selection.renaming = id),
    hang: () => emit("hang"),
    parade: () => (selection.parading = id),
    inset: () => void insets.makeOf(id),
    enter: () => inside.enter(id),
    open: () => void insets.openUp(id),
    blur: () => void scene.edit([{ edit: "blur-object", id, blurred: !props.thing.blurred }]),
    pin: () => void troupe.pin(id, !props.thing.pinned),
    free: () => void troupe.hangOn(id, null),
    front: () => void several.order("front"),
    forward: () => void several.order("forward"),
    backward: () => void several.order("backward"),
    back: () => void several.order("back"),
    copy: () => void several.duplicate(),
    show: () => void several.show(!props.thing.shown),
    lock: () => void several.lock(!props.thing.locked),
    kind: () => several.pickAlike("kind"),
    colour: () => several.pickAlike("colour"),
    remove: () => void (props.ofSeveral ? several.remove() : troupe.remove(id)),
  };
  actions[command]?.();
}

const mark = (tag: string | null) => troupe.tag(props.ofSeveral ? selection.picked : [props.thing.id], tag);
</script>

<template>
  <PopUpMenu placement="bottom-end" @command="choose">
    <slot />
    <template #items>
      <ElDropdownItem command="rename">Rename (F2)</ElDropdownItem>
      <ElDropdownItem command="copy">Duplicate (Ctrl+D)</ElDropdownItem>
      <ElDropdownItem command="parade">Make a parade of this…</ElDropdownItem>
      <template v-if="thing.kind === 'inset'">
        <ElDropdownItem command="enter">Go inside (H)</ElDropdownItem>
        <ElDropdownItem command="open">Convert to a group</ElDropdownItem>
      </template>
      <ElDropdownItem v-else command="inset">Make an inset of this</ElDropdownItem>
      <ElDropdownItem command="hang">Hang on…</ElDropdownItem>
      <ElDropdownItem v-if="scene.camera && !thing.parent && thing.kind !== 'camera'" command="pin">{{
        thing.pinned ? "Let the camera pass it" : "Pin to the picture"
      }}</ElDropdownItem>
      <ElDropdownItem v-if="scene.head?.blur && thing.kind !== 'camera'" command="blur">{{
        thing.blurred ? "Keep its motion sharp" : "Blur its motion"
      }}</ElDropdownItem>
      <ElDropdownItem v-if="thing.parent" command="free">Detach from parent</ElDropdownItem>
      <ElDropdownItem command="front" divided>Bring to front (Alt+Home)</ElDropdownItem>
      <ElDropdownItem command="forward">Bring forward (Alt+Page Up)</ElDropdownItem>
      <ElDropdownItem command="backward">Send backward (Alt+Page Down)</ElDropdownItem>
      <ElDropdownItem command="back">Send to back (Alt+End)</ElDropdownItem>
      <ElDropdownItem command="kind" divided>Pick all of its kind (Ctrl+Alt+K)</ElDropdownItem>
      <ElDropdownItem command="colour">Pick all of its colour (Ctrl+Alt+C)</ElDropdownItem>
      <ElDropdownItem command="lock" divided>{{ thing.locked ? "Unlock" : "Lock" }}</ElDropdownItem>
      <li class="tagging" role="none"><TagSwatches in-menu :tag="thing.tag ?? null" @choose="mark" /></li>
      <ElDropdownItem command="show">{{ thing.shown ? "Hide" : "Show" }}</ElDropdownItem>
      <ElDropdownItem command="remove" divided>Delete</ElDropdownItem>
    </template>
  </PopUpMenu>
</template>

<style scoped>
.tagging {
  padding: 4px 16px;
}
</style>
