/**
 * Pictures by their ids: asked of the service when they are first to be painted, and kept decoded as long as there is
 * room for them.
 */
import { shallowRef } from "vue";

/** Pictures of an object, one a page. */
export interface Pages {
  readonly length: number;
  readonly at: (page: number) => CanvasImageSource | undefined;
}

/** How many bytes decoded pictures may take together; those not painted for longest are let go first. */
const ROOM = 600_000_000;
/** Changes whenever a picture arrives: what paints while it is missing paints again then. */
export const arrived = shallowRef(0);
const decoded = new Map<string, ImageBitmap>();
const asked = new Set<string>();
let taken = 0;

export const pictureAddress = (id: string): string => `/api/pictures/${id}`;

/** A picture, if it is there already; else it is asked for. */
export function pictureOf(id: string): ImageBitmap | undefined {
  const found = decoded.get(id);
  if (found) {
    // The last painted come last.
    decoded.delete(id);
    decoded.set(id, found);
    return found;
  }
  void arrived.value;
  void ask(id);
  return undefined;
}

async function ask(id: string): Promise<void> {
  if (asked.has(id)) return;
  asked.add(id);
  try {
    const answer = await fetch(pictureAddress(id));
    if (!answer.ok) return;
    const picture = await createImageBitmap(await answer.blob());
    decoded.set(id, picture);
    taken += picture.width * picture.height * 4;
    for (const [old, one] of decoded) {
      if (taken <= ROOM || old === id) break;
      decoded.delete(old);
      taken -= one.width * one.height * 4;
      one.close();
    }
    arrived.value += 1;
  } catch {
    // It is asked for again when it is next painted.
  } finally {
    asked.delete(id);
  }
}

/** The pages of an object; they are asked for at once, so that a flipbook does not stutter when it first plays. */
export function pagesOf(ids: readonly string[]): Pages {
  return { length: ids.length, at: (page) => (ids[page] === undefined ? undefined : pictureOf(ids[page])) };
}
