/** Shortcuts of time: playing, going from frame to frame and from key to key, and what the time sheet shows. */
import { inGroup } from "@/composables/shortcuts/table";
import { useFigure } from "@/composables/useFigure";
import { useKeyTravel } from "@/composables/useKeyTravel";
import type { Shortcut } from "@/composables/useShortcuts";
import { nextPose } from "@/geometry/poses";
import { usePicks } from "@/stores/picks";
import { usePlayback } from "@/stores/playback";
import { useScene } from "@/stores/scene";
import { useSounds } from "@/stores/sounds";
import { useTimeView } from "@/stores/timeView";

const shortcut = inGroup("Time");

export function useTimeShortcuts(): readonly Shortcut[] {
  const scene = useScene();
  const playback = usePlayback();
  const picks = usePicks();
  const time = useTimeView();
  const sounds = useSounds();
  const { figure } = useFigure();
  const { toKey } = useKeyTravel();

  function toPose(by: 1 | -1): void {
    const steps = figure.value ? scene.motion?.objects.get(figure.value.id)?.steps : undefined;
    const frame = steps && nextPose(steps.poses, playback.frame, by);
    if (frame !== undefined) playback.goTo(frame);
  }

  return [
    shortcut(["Space"], "Play or pause", playback.toggle),
    shortcut([","], "One frame back", () => playback.goTo(playback.frame - 1)),
    shortcut(["."], "One frame on", () => playback.goTo(playback.frame + 1)),
    shortcut(["<"], "Previous key (Shift and ,)", () => toKey(-1)),
    shortcut([">"], "Next key (Shift and .)", () => toKey(1)),
    shortcut(["Home"], "First frame of the play range", () => playback.goTo(playback.from)),
    shortcut(["End"], "Last frame of the play range", () => playback.goTo(playback.to)),
    shortcut(["f"], "Type a frame", () => document.getElementById("frame-field")?.focus()),
    shortcut(["l"], "Loop playback: on or off", () => (playback.loop = !playback.loop)),
    shortcut(["i", "o"], "Zoom the time sheet in or out", (key) => time.zoomBy(key === "i" ? 1.5 : 1 / 1.5)),
    shortcut(["u"], "Show the whole scene on the time sheet", time.fit),
    shortcut(
      ["y"],
      "Show the selected keys on the time sheet",
      () => picks.frames.length && time.show(picks.frames[0]!, picks.frames.at(-1)!),
    ),
    shortcut(["s"], "Add or remove a marker; tap along during playback", () => void sounds.tap()),
    shortcut([";", "'"], "Previous or next pose of the figure's footsteps", (key) => toPose(key === ";" ? -1 : 1)),
  ];
}
