/** Edits that put rules on objects whose settings are known in advance. */
import { still } from "@/api/channels";
import { newRuleId } from "@/api/ids";
import type { Edit, Rule, SceneObject } from "@/api/types";

/** A new retime rule on an object, after all its others. */
export const retimeEdit = (
  thing: SceneObject,
  channels: string[] | "keyed",
  { delay, speed }: { delay: number; speed: number },
  id: string,
): Edit => ({
  edit: "add-rule",
  object: thing.id,
  rule: {
    id,
    kind: "retime",
    on: true,
    channels,
    mode: "add",
    settings: { delay: still(delay), speed: still(speed) },
  } as Rule,
});

/** Rules that have some objects follow a leader one after the other, on one channel: each the one before it. */
export function chainEdits(
  leader: string,
  links: readonly string[],
  channel: string,
  how: { delay: number; share: number; spring: number | null; damping: number },
): Edit[] {
  return links.map((object, i): Edit => {
    const numbers = {
      delay: still(how.delay),
      share: still(how.share),
      ...(how.spring === null ? {} : { spring: still(how.spring), damping: still(how.damping) }),
    };
    const settings = { leader: i === 0 ? leader : links[i - 1]!, ...numbers };
    return {
      edit: "add-rule",
      object,
      rule: {
        id: newRuleId(),
        kind: "follow",
        on: true,
        channels: [channel],
        mode: "add",
        settings,
      } as unknown as Rule,
    };
  });
}
