<script setup lang="ts">
/**
 * What a lane says of ends that do not fit: a part that stops being shown before its parent, with a click to mend
 * it; and after a change of a span, what shall become of its descendants.
 */
import { computed } from "vue";
import { isInset } from "@/api/kinds";
import { lastShown, type Span, spanOf } from "@/api/spans";
import type { Edit, SceneObject } from "@/api/types";
import { endOfInside, innerOf } from "@/api/insets";
import { withParts } from "@/picture/boxes";
import { usePlayback } from "@/stores/playback";
import { useScene } from "@/stores/scene";

/**
 * `lastKey`: the frame of the last leaf of the lane. `was`: the span before it was changed by hand, while the
 * children of the object has not followed.
 */
const props = defineProps<{
  thing: SceneObject;
  perFrame: number;
  picked: boolean;
  lastKey: number;
  was: Span | null;
}>();
const emit = defineEmits<{ done: [] }>();
const scene = useScene();
const playback = usePlayback();

const span = computed(() => spanOf(props.thing));
const first = computed(() => span.value.first ?? 0);
const last = computed(() => lastShown(props.thing, playback.last));
const parts = computed(() =>
  withParts(props.thing.id, scene.parts)
    .slice(1)
    .flatMap((id) => scene.byId.get(id) ?? []),
);

/** Of its parent, that which is missing first, and its last frame. */
const carrier = computed(() => {
  let found: { name: string; last: number } | null = null;
  for (let at = props.thing.parent; at;) {
    const above = scene.byId.get(at);
    if (!above) break;
    const until = lastShown(above, playback.last);
    if (!found || until < found.last) found = { name: above.name, last: until };
    at = above.parent;
  }
  return found;
});
const short = computed(() => (carrier.value ? carrier.value.last - last.value : 0));

function extend(stretch: boolean): void {
  if (!carrier.value) return;
  const { id } = props.thing;
  const was = span.value;
  const to = carrier.value.last >= playback.last ? null : carrier.value.last;
  const edits: Edit[] = [{ edit: "set-span", id, first: was.first, last: to, stretch }];
  if (parts.value.length) edits.push({ edit: "fit-parts", id, ...was, how: stretch ? "stretch" : "extend" });
  void scene.edit(edits);
}

/** Of an inset: the scene inside, and the frame at which that comes to its end, where it does not go on past it. */
const inner = computed(() => innerOf(scene.head, props.thing));
const ends = computed(() =>
  isInset(props.thing) && inner.value ? endOfInside(props.thing, inner.value, playback.fps) : null,
);
/**
 * By how many frames the inset outlasts its inside; below 0, by how many it cuts it off. Repetitions have no end.
 */
const over = computed(() => {
  const past = isInset(props.thing) ? props.thing.inset.past : "hold";
  if (ends.value === null || ((past === "loop" || past === "ping-pong") && last.value > ends.value)) return 0;
  // Cut off by the end of the scene itself is no fault of the inset's.
  return last.value >= playback.last && ends.value > last.value ? 0 : last.value - ends.value;
});
const fit = (how: "span" | "inside" | "stretch"): void =>
  void scene.edit([{ edit: "fit-inset", id: props.thing.id, how }]);
const overSaid = computed(() => {
  const count = Math.abs(over.value);
  const frames = count === 1 ? "frame" : "frames";
  return over.value > 0 ? `its inside ends ${count} ${frames} earlier` : `${count} ${frames} inside are not shown`;
});

const spanned = computed(() => parts.value.map(spanOf).some(({ first, last }) => first !== null || last !== null));
const keyed = computed(() =>
  parts.value.some((part) => Object.values(part.channels ?? {}).some((channel) => channel.keys.length > 0)),
);
const isOffered = computed(
  () =>
    props.picked &&
    props.was !== null &&
    (spanned.value || keyed.value || ends.value !== null) &&
    (props.was.first !== span.value.first || props.was.last !== span.value.last),
);

function follow(how: "extend" | "stretch"): void {
  if (props.was) void scene.edit([{ edit: "fit-parts", id: props.thing.id, ...props.was, how }]);
  emit("done");
}

/** Words stand where there is room: after the end and all leaves, or before the end when that is late. */
const after = computed(() => Math.max(last.value, Math.min(props.lastKey, playback.last)));
const isLate = computed(() => after.value > playback.last * 0.55);
const place = computed(() => ({ left: `${(isLate.value ? last.value : after.value) * props.perFrame}px` }));
const said = computed(
  () => `ends ${short.value} ${short.value === 1 ? "frame" : "frames"} before ${carrier.value?.name}`,
);
</script>

<template>
  <div v-if="isOffered" class="says picked" :class="{ late: isLate }" :style="place" @pointerdown.stop>
    <span>{{ inner ? "What is inside" : "What hangs on it" }}</span>
    <button class="chip small" title="Keep its keys" @click="emit('done')">keep their timing</button>
    <button
      v-if="spanned || inner"
      class="chip small"
      title="Attached objects that began or ended with it follow; others stay unchanged"
      @click="follow('extend')"
    >
      ends with it
    </button>
    <button class="chip small" title="Its keys and spans are stretched, too" @click="follow('stretch')">
      stretch with it
    </button>
  </div>
  <div v-else-if="short > 0" class="says" :class="{ late: isLate, picked }" :style="place" @pointerdown.stop>
    <span
      :title="`${thing.name} is gone from frame ${last + 1} on, while ${carrier?.name} is shown to ${carrier?.last}`"
      >{{ said }}</span
    >
    <template v-if="picked">
      <button class="chip small" :title="`Show it to frame ${carrier?.last}; its keys stay`" @click="extend(false)">
        extend
      </button>
      <button
        class="chip small"
        :disabled="last <= first"
        :title="`Show it to frame ${carrier?.last}, its keys and what hangs on it stretched along`"
        @click="extend(true)"
      >
        stretch along
      </button>
    </template>
  </div>
  <div v-else-if="over" class="says" :class="{ late: isLate, picked }" :style="place" @pointerdown.stop>
    <span :title="`${inner?.name} has ${inner?.length} frames; ${overSaid}`">{{ overSaid }}</span>
    <template v-if="picked">
      <button
        class="chip small"
        :title="`${over > 0 ? 'End' : 'Go on to'} where its inside ends, at frame ${ends}`"
        @click="fit('span')"
      >
        {{ over > 0 ? "end with it" : "show it all" }}
      </button>
      <button
        class="chip small"
        :title="`${over > 0 ? 'More' : 'Fewer'} frames inside; its keys stay`"
        @click="fit('inside')"
      >
        {{ over > 0 ? "make it longer" : "make it shorter" }}
      </button>
      <button class="chip small" title="The keys inside are stretched along" @click="fit('stretch')">stretch it</button>
    </template>
  </div>
</template>

<style scoped>
/* Leaves lie above the words, and under what can be clicked. */
.says {
  position: absolute;
  top: 1px;
  height: 22px;
  margin-left: 22px;
  padding: 0 4px;
  display: flex;
  align-items: center;
  gap: 5px;
  white-space: nowrap;
  font-size: 12px;
  color: var(--ink-2);
  background: color-mix(in srgb, var(--paper) 88%, transparent);
  border-radius: 4px;
}
.picked {
  z-index: 2;
}
.says .chip {
  height: 18px;
  padding-block: 0;
}
.late {
  margin-left: 0;
  transform: translateX(calc(-100% - 8px));
}
</style>
