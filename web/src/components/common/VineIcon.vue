<script lang="ts">
/** Our own small drawings, 20 × 20, drawn with the current colour. */
export const ICONS = {
  leaf: "M3.5 16.5C3 8 8 3.5 16.5 3.5 16.5 12 12 17 3.5 16.5ZM3.5 16.5 11 9",
  pick: "M5 3.5 15.5 11l-5 .8L7.7 16.5Z",
  pivot: "M10 2.5v15M2.5 10h15M10 6.5a3.5 3.5 0 1 0 0 7 3.5 3.5 0 1 0 0-7",
  path: "M3 15c3-11 6 3 9-5 1-3 2-5 5-5",
  picture: "M3 4.500h14v11H3ZM3 13.500l4-4 3.500 3.500 3-2.500 3.500 3M13.500 7.500h.01",
  palette:
    "M10 3C5 3 2.500 7 3 10.500 3.500 14 7 17 9 16.500 11 16 9 13.500 11 12.500 13 12 16.500 13.500 17 10 17.500 6 14 3 10 3ZM7 8h.01M10 6.500h.01M13 8h.01",
  draw: "M3.500 16.500 5 11.500 12.500 4 16 7.500 8.500 15ZM11 5.500l3.500 3.500M3.500 16.500l3-3",
  points: "M5 14C5 7 9 5 14.500 5.500M3.500 12.500h3v3h-3ZM13 4h3v3h-3ZM9 3 5.500 6.500",
  link: "M4.5 6.500a2.3 2.3 0 1 0 .01 0ZM15.5 8.900a2.3 2.3 0 1 0 .01 0ZM6.5 10c1.5 5 4 6 7 3",
  cue: "M4 3.500v13M4 4.500c4-2.5 7 2.5 12 0v7.500c-5 2.5-8-2.5-12 0",
  add: "M10 4v12M4 10h12",
  find: "M8.500 3.500a5 5 0 1 0 .01 0ZM12.200 12.200l4.300 4.300",
  play: "M6 3.5 16.5 10 6 16.5Z",
  pause: "M6 4v12M14 4v12",
  first: "M4.5 4v12M15.5 4.5 8 10l7.5 5.5Z",
  last: "M15.5 4v12M4.5 4.5 12 10l-7.5 5.5Z",
  before: "M12 5 6.5 10l5.5 5",
  after: "M8 5l5.5 5L8 15",
  loop: "M4 10a6 6 0 0 1 10.5-4M16 10a6 6 0 0 1-10.5 4M14.5 2.5V6H11M5.5 17.5V14H9",
  undo: "M7 4 3.5 7.5 7 11M3.5 7.5H11a5 5 0 0 1 0 9H8",
  redo: "M13 4l3.5 3.500L13 11M16.5 7.500H9a5 5 0 0 0 0 9h3",
  note: "M3.500 4.500h13v8.500h-7L6 16.500V13H3.500ZM6.500 7.500h7M6.500 10h4.500",
  rehearsal: "M3 6.500h10v8.500H3ZM6 6.500V4h11v8.500h-4",
  lock: "M5 9h10v8H5ZM7 9V6.500a3 3 0 0 1 6 0V9M10 12v2",
  unlock: "M5 9h10v8H5ZM7 9V6a3 3 0 0 1 5.700-1.200M10 12v2",
  eye: "M2 10c4-7 12-7 16 0-4 7-12 7-16 0ZM10 7.500a2.5 2.5 0 1 0 0 5 2.5 2.5 0 1 0 0-5",
  shut: "M2.5 9c4 5 11 5 15 0M5 12l-1.5 2.500M10 13v3M15 12l1.5 2.5",
  more: "M4.5 10h.01M10 10h.01M15.5 10h.01",
  figure:
    "M10 5.800a2 2 0 1 0 0-4 2 2 0 1 0 0 4ZM10 6v5.500M10 11.5 6.5 14l.5 4M10 11.500l3.5 3 2 3.500M10 7.5 6 9.500M10 7.500l4 3",
  joints:
    "M4.5 3.500a1.8 1.8 0 1 0 .01 0ZM6 6.500l3.5 4M10.5 10.500a1.8 1.8 0 1 0 .01 0ZM12 13l3 2.500M16 14.500a1.8 1.8 0 1 0 .01 0Z",
  camera: "M2.500 6.500h10v7h-10ZM12.500 9l5-2.500v7l-5-2.500M5 6.500V4.500h4v2",
  inset: "M2.500 4.500h15v11h-15ZM10.500 8.500h5v5h-5ZM5 7l3.500 3M8.500 7.500V10H6",
  group: "M3 7h5v5H3ZM12 4h5v5h-5ZM9 13h5v4H9ZM8 9.500h1.500L11 8M8 11l2 2",
  keyboard: "M2.5 5.500h15v9h-15ZM5.5 8.500h.01M8.5 8.500h.01M11.5 8.500h.01M14.5 8.500h.01M6.5 11.800h7",
  file: "M5 2.500h6.500L15.5 6.500v11H5ZM11.5 2.500v4h4",
  bin: "M4 6h12M8 6V3.500h4V6M5.5 6l1 11h7l1-11M8.5 9v5M11.5 9v5",
  copy: "M7 7h9.500v9.500H7ZM13 7V3.500H3.500V13H7",
  pencil: "M3.5 16.5 4.5 12 13 3.500l3.5 3.500L8 15.500ZM11 5.500l3.5 3.5",
  gear: "M10 6.500a3.5 3.5 0 1 0 0 7 3.5 3.5 0 1 0 0-7ZM10 2.500V5M10 15v2.500M2.5 10H5M15 10h2.500M4.7 4.700l1.7 1.700M13.6 13.600l1.7 1.700M4.7 15.300l1.7-1.700M13.6 6.400l1.7-1.7",
  ellipse: "M10 4.500c4.5 0 7 2.5 7 5.500s-2.5 5.5-7 5.500S3 13 3 10s2.5-5.5 7-5.500Z",
  rectangle: "M3.5 5.500h13v9h-13Z",
  polygon: "M10 3 17 8.2 14.3 16.500H5.700L3 8.200Z",
  star: "M10 2.5 12.2 7.6 17.6 8.1 13.5 11.7 14.8 17 10 14.2 5.2 17 6.5 11.7 2.4 8.1 7.8 7.600Z",
  line: "M4 16 16 4",
  parade: "M2.500 6.500h4v7h-4ZM8 8h4v5.500H8ZM13.500 9.500h4v4h-4Z",
  text: "M4 6.500V4h12v2.500M10 4v12.500M7.5 16.500h5",
  outline: "M3 13C4 4 9 3 10 8s6 4 7 1c1 6-4 9-8 8s-5-1-6-4Z",
} as const;
export type IconName = keyof typeof ICONS;
</script>

<script setup lang="ts">
defineProps<{ name: IconName; solid?: boolean }>();
</script>

<template>
  <svg class="icon" viewBox="0 0 20 20" aria-hidden="true">
    <path
      :d="ICONS[name]"
      :fill="solid ? 'currentColor' : 'none'"
      stroke="currentColor"
      :stroke-width="name === 'more' ? 2.6 : 1.6"
      stroke-linecap="round"
      stroke-linejoin="round"
    />
  </svg>
</template>

<style scoped>
.icon {
  width: 18px;
  height: 18px;
  display: block;
  flex: none;
}
</style>
