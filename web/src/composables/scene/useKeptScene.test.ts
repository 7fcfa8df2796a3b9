import { encode } from "@msgpack/msgpack";
import { expect, it } from "vitest";
import type { ChangedMotion } from "@/api/client";
import type { SceneState } from "@/api/types";
import { useKeptScene } from "@/composables/scene/useKeptScene";
import { HEAD } from "@/testing/head";

const thing = (id: string, name = id) => ({ id, name, kind: "shape", parent: null, channels: {}, rules: [] });

function motion(revision: number, order: readonly string[], whole: boolean): Uint8Array {
  const head = { fps: 24, length: 48, size: [640, 360], background: "#FFFFFF", dials: [], copies: [] };
  return encode({ ...head, revision, order, hidden: [], whole, objects: {}, steps: [] });
}

function shown() {
  const scene = useKeptScene();
  const found = {
    revision: 3,
    history: { undo: null, redo: null },
    scene: { ...HEAD, objects: [thing("moth"), thing("leaf")] },
  };
  scene.show("s1", found as unknown as SceneState, motion(3, ["moth", "leaf"], true));
  return scene;
}

function change(revision: number, order: readonly string[], objects: readonly object[]): ChangedMotion {
  const history = { undo: "rename", redo: null };
  return {
    changed: { revision, history, head: HEAD, order, objects } as never,
    motion: motion(revision, order, false),
  };
}

it("takes up what changed and leaves the rest as it was, in the new order", () => {
  const scene = shown();
  const leaf = scene.objects.value[1];
  expect(scene.take(change(4, ["leaf", "moth"], [thing("moth", "Luna moth")]))).toBe(true);
  expect(scene.objects.value.map((one) => one.name)).toEqual(["leaf", "Luna moth"]);
  expect(scene.objects.value[0]).toBe(leaf);
  expect([scene.revision.value, scene.history.value.undo, scene.kept.value?.revision]).toEqual([4, "rename", 4]);
  expect(scene.ids.value).toEqual(new Set(["leaf", "moth"]));
});

it("takes nothing twice, and nothing where no scene is open", () => {
  const scene = shown();
  expect(scene.take(change(3, ["moth"], []))).toBe(false);
  expect(scene.objects.value).toHaveLength(2);
  scene.clear();
  expect(scene.take(change(5, ["moth"], []))).toBe(false);
  expect([scene.id.value, scene.kept.value, scene.objects.value.length]).toEqual([null, null, 0]);
});
