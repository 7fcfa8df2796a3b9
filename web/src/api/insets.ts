/** Insets: descriptions of their inner scenes, and their duration outside. */
import { isInset } from "./kinds";
import type { InnerWords, InsetThing, SceneHead, SceneObject } from "@/api/types";

/** What an inset does before the first and after the last frame inside, in words. */
export const PAST: readonly { readonly past: InsetThing["inset"]["past"]; readonly label: string }[] = [
  { past: "hold", label: "holds its end" },
  { past: "loop", label: "starts over" },
  { past: "ping-pong", label: "ping-pongs" },
  { past: "gone", label: "is gone" },
];

/** The inner scene of an inset, as described outside. */
export const innerOf = (head: SceneHead | null, thing: SceneObject | null): InnerWords | null =>
  isInset(thing) ? (head?.inner.find((one) => one.id === thing.inset.scene) ?? null) : null;

/** The inner frame of an inset where its span begins, while it runs by itself; null where keys or rules say it. */
export function startOf(thing: InsetThing): number | null {
  const channel = thing.channels?.["inner"];
  const ruled = thing.rules.some((rule) => rule.on && (rule.channels === "keyed" || rule.channels.includes("inner")));
  return channel?.keys.length || ruled ? null : Number(channel?.base ?? 0);
}

/**
 * The last frame outside at which an inset that runs by itself comes to the end of its inside; null where it does not
 * run by itself.
 */
export function endOfInside(thing: InsetThing, inner: InnerWords, fps: number): number | null {
  const start = startOf(thing);
  return start === null
    ? null
    : Math.floor((thing.span?.first ?? 0) + ((inner.length - 1 - start) * fps) / inner.fps + 1e-6);
}
