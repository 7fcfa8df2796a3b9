/** The service's own words, from its OpenAPI document. `make types` writes schema.d.ts again. */
import type { components } from "./schema";

type Schemas = components["schemas"];

export type Scene = Schemas["Scene"];
/** A scene without its objects. */
export type SceneHead = Schemas["SceneHead"];
export type SceneState = Schemas["SceneState"];
/** What is remarked on a scene. */
export type NotesState = Schemas["NotesState"];
export type NoteWords = Schemas["NoteWords"];
export type NoteKindWords = Schemas["NoteKindWords"];
/** Objects as a scene of their own, and what stays behind. */
export type CopiedObjects = Schemas["CopiedObjects"];
export type Changed = Schemas["Changed"];
export type HistoryState = Schemas["HistoryState"];
export type Summary = Schemas["Summary"];
export type Shelf = Schemas["Shelf"];
/** What scenes show. */
export type FigureObject = Schemas["FigureObject"];
export type ParadeObject = Schemas["ParadeObject"];
/** How the copies of a parade are laid out, with their lists. */
export type Parade = Schemas["Parade"];
export type ItemList = Parade["lists"][number];
export type TroupeObject =
  ShapeThing | GroupThing | FigureObject | ParadeObject | PictureThing | InsetThing | CameraThing;
/** The joints of a figure, where they rest. */
export type Figure = Schemas["Figure"];
export type Limb = Schemas["Limb"];
export type StarterWords = Schemas["StarterWords"];
export type GaitWords = Schemas["GaitWords"];
export type Dial = Schemas["Dial"];
/** A dial, told as something with one channel; its id is `dial:` and the dial's. */
export interface DialThing extends Omit<GroupThing, "kind"> {
  readonly kind: "dial";
  readonly dial: Dial;
}
/** Whatever has channels. */
export type SceneObject = TroupeObject | DialThing;
export type Cue = Schemas["Cue"];
/** A copy of all scenes. */
export type BackupWords = Schemas["BackupWords"];
/** A sound that is heard with the scene, and what of a dial follows one. */
export type KeptSound = Schemas["KeptSound"];
export type Follow = Schemas["Follow"];
export type Marker = Schemas["Marker"];
export type Beat = Schemas["Beat"];
export type BroughtSound = Schemas["BroughtSound"];
export type ReadySound = Schemas["ReadySoundWords"];
export type BeatWords = Schemas["BeatWords"];
export type Place = Schemas["Place"];
export type Drive = Schemas["DriveWords"];
export type How = Schemas["LinkDraft"]["how"];
export type Channel = Schemas["Channel"];
export type Key = Schemas["Key"];
export type End = Schemas["End"];
export type EndMode = End["mode"];
export type Ease = Key["ease"];
export type Edit = Schemas["EditBatch"]["edits"][number];
export type Vocabulary = Schemas["Vocabulary"];
export type KindWords = Schemas["KindWords"];
export type PrincipleWords = Schemas["PrincipleWords"];
export type ChannelWords = Schemas["ChannelWords"];
/** Something drawn. */
export type BroughtScene = Schemas["BroughtScene"];
export type OpenedFile = Schemas["OpenedFile"];
export type TableWords = Schemas["TableWords"];
export type LaySamples = Schemas["LaySamples"];
export type LaidTrack = Schemas["LaidTrack"];
export type BroughtPictures = Schemas["BroughtPictures"];
export type KeptPicture = Schemas["KeptPicture"];
export type PictureThing = Schemas["PictureObject"];
export type InsetThing = Schemas["InsetObject"];
/** A scene that insets show, and what is informed of it outside. */
export type InnerWords = Schemas["InnerWords"];
export type ShapeThing = Schemas["ShapeObject"];
export type GroupThing = Schemas["GroupObject"];
export type CameraThing = Schemas["CameraObject"];
export type ElementWords = Schemas["ElementWords"];
export type FontWords = Schemas["FontWords"];
export type TextShape = Schemas["TextShape"];
export type FeelWords = Schemas["FeelWords"];
export type DrawnFeel = Schemas["DrawnFeel"];
export type FeelLook = Schemas["FeelLook"];
export type KeptFeel = Schemas["KeptFeel"];
export type Rule = Schemas["Rule"];
export type RuleWords = Schemas["RuleWords"];
export type SettingWords = Schemas["SettingWords"];
export type PresetWords = Schemas["PresetWords"];
export type ExportOptions = Schemas["ExportOptions"];
export type ExportReport = Schemas["ExportReport"];
export type ExportLook = Schemas["ExportLook"];
export type FormatWords = Schemas["FormatWords"];
export type Vine = Schemas["Vine"];
export type OutlinePoints = Schemas["OutlinePoints"];
export type Problem = Schemas["Problem"];

export type RehearsalWords = Schemas["RehearsalWords"];
export type DifferenceWords = Schemas["DifferenceWords"];
export type Differences = Schemas["Differences"];
export type BroughtPart = Schemas["BroughtPart"];

export type PageWords = components["schemas"]["PageWords"];
export type SceneChanged = components["schemas"]["SceneChanged"];
/** What the service tells by itself of a scene that is open. */
export type News = components["schemas"]["PagesHere"] | SceneChanged | components["schemas"]["SceneGone"];
export type WorkState = components["schemas"]["WorkState"];
export type SizeWords = components["schemas"]["SizeWords"];
