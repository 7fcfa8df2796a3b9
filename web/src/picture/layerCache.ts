/** Layers with effects are cached while their contents rest, and composited again instead of being painted again. */
import { arrived } from "@/api/pictures";
import type { Effect, Group, Step } from "@/api/paintList";
import type { Matrix } from "@/geometry/matrix";
import type { Layer } from "@/picture/effects";
import { type Extent, releaseCanvas } from "@/picture/layers";
import type { FrameView } from "@/picture/frameView";
import { fingerprintOf, fingerprintOfEffects } from "@/picture/fingerprints";

/** What a layer was last painted from; the layer itself where it rested. */
interface Kept {
  readonly fingerprint: readonly number[];
  readonly layer: Layer | null;
}

/** How many groups are remembered, and how many pixels kept layers may have together; the oldest are released first. */
const [MOST_GROUPS, ROOM] = [400, 24_000_000];
/** Of one group this many pictures are remembered: it may be painted several times at once, as in copies. */
const MOST_ALIKE = 2;
const kept = new Map<Group, Kept[]>();
let taken = 0;

/** How a group is painted: into what box, through which matrix. */
interface Painted {
  readonly view: FrameView;
  readonly earlier: number;
  readonly base: Matrix;
  readonly box: Extent;
}

/**
 * Use the layer of a group: the one kept from before where it would be painted just the same, or what `paint` makes.
 * What is painted the same a second time is kept from then on: the canvases of what moves are released at once.
 */
export function withLayer(
  step: Group,
  [steps, effects]: readonly [readonly Step[], readonly Effect[]],
  { view, earlier, base, box }: Painted,
  paint: () => Layer,
  use: (layer: Layer) => void,
): void {
  const fingerprint = [...base, box.left, box.top, box.width, box.height, effects.length, arrived.value];
  fingerprintOf(steps, view, earlier, fingerprint);
  fingerprintOfEffects(step, view, earlier, fingerprint);
  const known = kept.get(step) ?? [];
  const found = known.findIndex((one) => same(one.fingerprint, fingerprint));
  const before = known[found];
  kept.delete(step);
  kept.set(step, known);
  if (before?.layer) {
    use(before.layer);
    return;
  }
  const layer = paint();
  use(layer);
  if (before) {
    known[found] = { fingerprint, layer };
    taken += sizeOf(layer);
  } else {
    known.push({ fingerprint, layer: null });
    releaseCanvas(layer.ctx);
    if (known.length > MOST_ALIKE) letGo(known.shift());
  }
  for (const [old, layers] of kept) {
    if ((taken <= ROOM && kept.size <= MOST_GROUPS) || old === step) break;
    kept.delete(old);
    layers.forEach(letGo);
  }
}

const sizeOf = ({ ctx }: Layer): number => ctx.canvas.width * ctx.canvas.height;
const same = (one: readonly number[], other: readonly number[]): boolean =>
  one.length === other.length && one.every((value, i) => value === other[i]);

function letGo(one: Kept | undefined): void {
  if (!one?.layer) return;
  taken -= sizeOf(one.layer);
  releaseCanvas(one.layer.ctx);
}
