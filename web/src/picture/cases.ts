/**
 * Paints the case files of tests/picture/cases in a page of their own, for the test that holds both painters together.
 * No part of the application.
 */
import { builtWhenAsked, type Outlines, type Rows } from "@/api/motion";
import { atFrame } from "@/picture/frameView";
import { background, paintSteps } from "@/picture/paint";
import { type Address, resolved, type StepData } from "@/api/paintList";

interface Case {
  readonly size: readonly [number, number];
  readonly background: string;
  readonly tracks: Readonly<Record<string, Readonly<Record<string, readonly (readonly number[])[]>>>>;
  readonly outlines?: Readonly<
    Record<
      string,
      {
        readonly which: readonly number[];
        readonly outlines: readonly string[];
        readonly bounds: readonly (readonly [number, number, number, number])[];
      }
    >
  >;
  readonly pictures?: Readonly<Record<string, readonly string[]>>;
  readonly steps: readonly StepData[];
}

async function bitmap(base64: string): Promise<ImageBitmap> {
  const answer = await fetch(`data:image/png;base64,${base64}`);
  return createImageBitmap(await answer.blob());
}

/** The picture of a case at a frame, as a PNG in a data URL. */
async function paintCase(given: Case, frame: number): Promise<string> {
  const canvas = document.createElement("canvas");
  const ctx = canvas.getContext("2d");
  if (!ctx) throw new Error("the browser makes no canvas to paint on");
  [canvas.width, canvas.height] = given.size;
  const pictures = new Map<string, ImageBitmap[]>();
  for (const [owner, list] of Object.entries(given.pictures ?? {}))
    pictures.set(owner, await Promise.all(list.map(bitmap)));
  const track = ([owner, name, first]: Address): Rows | undefined => {
    const rows = given.tracks[owner]?.[name];
    return rows && { width: rows[0]?.length ?? 1, rows: rows.length, data: new Float32Array(rows.flat()), first };
  };
  const outline = (owner: string, first: number): Outlines | undefined => {
    const one = given.outlines?.[owner];
    return (
      one && {
        which: new Uint16Array(one.which),
        first,
        outline: builtWhenAsked(one.outlines.map((d, i) => () => ({ path: new Path2D(d), bounds: one.bounds[i]! }))),
      }
    );
  };
  const scale = background(ctx, given, ...given.size);
  paintSteps(ctx, resolved(given.steps, { track, outline, pictures: (owner) => pictures.get(owner) }), atFrame(frame), [
    scale,
    0,
    0,
    scale,
    0,
    0,
  ]);
  return canvas.toDataURL("image/png");
}

Object.assign(window, { paintCase });
