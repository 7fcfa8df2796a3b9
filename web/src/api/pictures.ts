/**
 * Pictures by their ids: asked of the service when they are first to be painted, and kept decoded as long as there is
 * room for them.
 */
import { shallowRef } from "vue";

/** Pictures of an object, one a page. */
export interface Pages {
  readonly length: number;
  /** A page that is painted this many device pixels wide; the same picture, as large as that needs. */
  readonly at: (page: number, wide: number) => ImageBitmap | undefined;
}

/** How many bytes decoded pictures may take together; those not painted for longest are released first. */
const ROOM = 600_000_000;
/** Changes whenever a picture arrives: what paints while it is missing paints again then. */
export const arrived = shallowRef(0);
/** By the address they came from, which says of which size they are. */
const decoded = new Map<string, ImageBitmap>();
const asked = new Set<string>();
let taken = 0;

export const pictureAddress = (id: string, wide?: number): string =>
  `/api/pictures/${id}${wide === undefined ? "" : `?wide=${wide}`}`;

/** The sizes pictures are asked for in: as many pixels wide at least, each twice as many as the one before. */
const SIZES = [512, 1024, 2048] as const;
/** The size to ask a picture for that is `own` pixels wide; the whole where it has not twice as many as are needed. */
const sizeFor = (wide: number, own: number): number | undefined =>
  SIZES.find((size) => wide <= size && own >= 2 * size);

/**
 * A picture that is painted this many device pixels wide, if it is there already; else it is asked for, and
 * another size of it is in for it meanwhile.
 */
export function pictureOf(id: string, wide: number, own: number): ImageBitmap | undefined {
  const wanted = pictureAddress(id, sizeFor(wide, own));
  const found = decoded.get(wanted);
  if (found) {
    // The last painted come last.
    decoded.delete(wanted);
    decoded.set(wanted, found);
    return found;
  }
  void arrived.value;
  void ask(wanted);
  for (const size of [undefined, ...SIZES.toReversed()]) {
    const other = decoded.get(pictureAddress(id, size));
    if (other) return other;
  }
  return undefined;
}

async function ask(address: string): Promise<void> {
  if (asked.has(address)) return;
  asked.add(address);
  try {
    const answer = await fetch(address);
    if (!answer.ok) return;
    const picture = await createImageBitmap(await answer.blob());
    decoded.set(address, picture);
    taken += picture.width * picture.height * 4;
    for (const [old, one] of decoded) {
      if (taken <= ROOM || old === address) break;
      decoded.delete(old);
      taken -= one.width * one.height * 4;
      one.close();
    }
    arrived.value += 1;
  } catch {
    // It is asked for again when it is next painted.
  } finally {
    asked.delete(address);
  }
}

/** The pages of an object; they are asked for at once, so that a flipbook does not stutter when it first plays. */
export function pagesOf(pages: readonly (readonly [id: string, width: number])[]): Pages {
  return {
    length: pages.length,
    at: (page, wide) => (pages[page] === undefined ? undefined : pictureOf(pages[page][0], wide, pages[page][1])),
  };
}
