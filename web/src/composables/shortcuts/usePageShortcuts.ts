/** Shortcuts of the page: tools, what is shown, undo, and what can be opened. */
import { inGroup, type WorkspaceActions } from "@/composables/shortcuts/table";
import type { Shortcut } from "@/composables/useShortcuts";
import { useGuide } from "@/stores/guide";
import { useNotes } from "@/stores/notes";
import { usePanels } from "@/stores/panels";
import { useRehearsals } from "@/stores/rehearsals";
import { useScene } from "@/stores/scene";
import { useSelection } from "@/stores/selection";
import { useSounds } from "@/stores/sounds";

const shortcut = inGroup("Page");

export function usePageShortcuts(actions: WorkspaceActions): readonly Shortcut[] {
  const scene = useScene();
  const selection = useSelection();
  const panels = usePanels();
  const guide = useGuide();
  const notes = useNotes();
  const rehearsals = useRehearsals();
  const sounds = useSounds();

  return [
    shortcut(["Backspace"], "Remove the last point of the drawing", () => void actions.drawing("back")),
    shortcut(["c"], "Whole stage or camera view", () => (scene.wholeStage = !scene.wholeStage)),
    shortcut(["q"], "Big picture: hide or show all panels", () => {
      panels.big = !panels.big;
    }),
    shortcut(["1", "2", "3", "4"], "Fold or unfold Troupe, values, time sheet or vine", (key) => {
      const panel = (["troupe", "values", "sheet", "vine"] as const)[Number(key) - 1];
      if (panel) panels.fold(panel);
    }),
    shortcut(["5"], "Zoom: fit the picture", () => actions.zoom("fit")),
    shortcut(["6"], "Zoom to the selection", () => actions.zoom("picked")),
    shortcut(["7"], "Zoom to 100 %", () => actions.zoom("whole")),
    shortcut(["z"], "Hold and drag to pan the picture", () => undefined),
    shortcut(["v"], "Pick and move", () => (selection.tool = "pick")),
    shortcut(["p"], "Move the pivot", () => (selection.tool = "pivot")),
    shortcut(["w"], "Draw and bend paths", () => (selection.tool = "path")),
    shortcut(["b"], "Draw outlines, by points or freely", () => (selection.tool = "draw")),
    shortcut(["e"], "Edit the points of an outline", () => (selection.tool = "points")),
    shortcut(["d"], "Link: drag from the driver to the driven object", () => (selection.tool = "link")),
    shortcut(["j"], "Joints: drag a figure's joints in its rest pose", () => (selection.tool = "joints")),
    shortcut(["x"], "Play live: cues wait for their keys", actions.live),
    shortcut(
      ["g"],
      "Onion skin: show or hide",
      () => (selection.onion = { ...selection.onion, on: !selection.onion.on }),
    ),
    shortcut(["n"], "Add an object", actions.add),
    shortcut(["t"], "Path and spacing: show or hide", () => (selection.showPath = !selection.showPath)),
    shortcut(["Ctrl+z"], "Undo", () => void scene.undo()),
    shortcut(["Ctrl+Shift+z", "Ctrl+y"], "Redo", () => void scene.redo()),
    shortcut(["Ctrl+e"], "Export", actions.export),
    shortcut(["Ctrl+k"], "Find by name", actions.find),
    shortcut(["Alt+r"], "Rehearsals: saved versions, to compare and restore", rehearsals.toggle),
    shortcut(["Alt+s"], "Sound: files, markers and the beat", () => void sounds.toggle()),
    shortcut(["Alt+n"], "Notes: what could be better about the motion", notes.toggle),
    shortcut(["F1"], "First scene: start, continue or close the guide", () =>
      guide.on ? guide.leave() : guide.begin(),
    ),
    shortcut(["Shift+F1"], "Help: a guide by task, to read and to search", actions.help),
    shortcut(["?"], "This sheet", actions.shortcuts),
  ];
}
