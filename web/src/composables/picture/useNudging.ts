/** Changing the picked objects from the keyboard, step by step. */
import { isCamera } from "@/api/kinds";
import { type Grip, ROW, useGrips } from "@/composables/picture/useGrips";
import { useSeveral } from "@/composables/several/useSeveral";
import { useTogether } from "@/composables/several/useTogether";
import { useChanging } from "@/composables/useChanging";
import { useMessages } from "@/stores/messages";
import { useScene } from "@/stores/scene";
import { useSelection } from "@/stores/selection";

interface Nudge {
  readonly kind: Grip["kind"];
  by: Record<string, number>;
}

/** Two changes from the keyboard, one after the other, as one. */
function joined(kind: Grip["kind"], one: Record<string, number>, two: Record<string, number>): Record<string, number> {
  const [none, join] = kind === "scale" ? [1, (a: number, b: number) => a * b] : [0, (a: number, b: number) => a + b];
  const names = new Set([...Object.keys(one), ...Object.keys(two)]);
  return Object.fromEntries([...names].map((name) => [name, join(one[name] ?? none, two[name] ?? none)]));
}

export function useNudging() {
  const scene = useScene();
  const selection = useSelection();
  const changing = useChanging();
  const several = useSeveral();
  const together = useTogether();
  const messages = useMessages();
  const { held, putPivot } = useGrips();

  const waiting: Nudge[] = [];
  let nudging = false;

  /**
   * Change the picked object from the keyboard: by amounts, or for scale by factors. Each starts from what the one
   * before has left; those that come while one is being made are made together.
   */
  async function nudge(kind: Grip["kind"], by: Record<string, number>): Promise<void> {
    const last = waiting.at(-1);
    if (last?.kind === kind) last.by = joined(kind, last.by, by);
    else waiting.push({ kind, by });
    if (nudging) return;
    nudging = true;
    try {
      for (let next = waiting.shift(); next; next = waiting.shift()) await nudged(next.kind, next.by);
    } finally {
      nudging = false;
    }
  }

  async function nudged(kind: Grip["kind"], by: Record<string, number>): Promise<void> {
    const start = held();
    const thing = selection.object;
    if (!start || !thing) return;
    if (!several.free().length && !isCamera(thing)) {
      messages.info(`${thing.name} is locked: unlock it in the troupe to change it in the picture.`);
      return;
    }
    selection.pickRow(ROW[kind]);
    if (selection.several && kind !== "pivot") {
      if (kind === "move") await scene.edit([several.moveEdit(by["x"] ?? 0, by["y"] ?? 0)]);
      else await together.change({ turn: by["rotation"] ?? 0, scale: [by["scale.x"] ?? 1, by["scale.y"] ?? 1] });
      return;
    }
    const next = Object.fromEntries(
      Object.entries(by).map(([name, amount]) => {
        const now = start.values[name] ?? 0;
        return [name, Number((kind === "scale" ? now * amount : now + amount).toFixed(4))];
      }),
    );
    const { "pivot.x": x = 0, "pivot.y": y = 0 } = { ...start.values, ...next };
    if (kind === "pivot") await putPivot(thing.id, { "pivot.x": x, "pivot.y": y });
    else await changing.make(thing, next, true);
  }

  return { nudge };
}
