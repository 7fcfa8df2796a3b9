"""Every change a person can make, as a typed command on the model.

An edit is data: it comes in over HTTP as `{"edit": "set-key", …}`, is checked on the way, and is applied to give a new
scene. Undo is kept by the store, which writes down the inverse of what an edit changed.
"""

from collections.abc import Sequence
from typing import Annotated

from pydantic import Field, ValidationError

from vine_swing.motion.basics.errors import EditError
from vine_swing.motion.edits.arranging import AlignObjects, DistributeObjects, MoveObjects, SpreadInTime
from vine_swing.motion.edits.base import Edit
from vine_swing.motion.edits.beats import KeysOnBeats, StepOnBeats
from vine_swing.motion.edits.bringing_back import BringBack
from vine_swing.motion.edits.camera import AddCamera, PinObject, SetDepths
from vine_swing.motion.edits.cues import AddCue, DeleteCue, LayPresses, SetCue
from vine_swing.motion.edits.dials import AddDial, DeleteDial, SetDial
from vine_swing.motion.edits.duplicating import DuplicateObjects
from vine_swing.motion.edits.figures import AddFigure, FreezeWalk, HangOnBones, PoseJoints, SetFigure, SetGait, TravelCycle
from vine_swing.motion.edits.fonts import AddFont, RemoveFont
from vine_swing.motion.edits.gradients import AddStop, RemoveStop, SetGradient
from vine_swing.motion.edits.hushing import HushNote
from vine_swing.motion.edits.insets import AddInset, DropInsets, MakeInset, OwnInset, SetInset
from vine_swing.motion.edits.keys import DeleteKeys, MoveKeys, SetBend, SetEase, SetEnds, SetHandles, SetKey, SetSpeed, SetValue
from vine_swing.motion.edits.laying import BringKeys, LaySamples
from vine_swing.motion.edits.looks import SetBlend, SetLine
from vine_swing.motion.edits.objects import (
    AddObject,
    DeleteObject,
    MovePivot,
    RenameObject,
    ReorderObject,
    ReparentObject,
    SetShape,
    ShowObject,
    free_name,
)
from vine_swing.motion.edits.open_inset import OpenInset
from vine_swing.motion.edits.ordering import OrderObjects
from vine_swing.motion.edits.outline_points import (
    AddPoint,
    CutOutline,
    FirstPoint,
    JoinEnds,
    MeetPoints,
    MovePoints,
    RemovePoints,
    ReverseOutline,
    SetOutline,
    SetPointHandle,
    SetPoints,
)
from vine_swing.motion.edits.outlines import CombineOutlines, DrawOutline, MakeOutline, OutlineLine, RefitOutline
from vine_swing.motion.edits.parades import MakeParade, OpenParade, SetParade
from vine_swing.motion.edits.parcels import PlaceParcel
from vine_swing.motion.edits.paths import JoinPath, SetCorner, SetWay, SplitPath
from vine_swing.motion.edits.pictures import AddPicture, DropPictures, LayBehind, ReplacePicture, SetPicture, TurnPages
from vine_swing.motion.edits.ready_looks import FogByDistance, GroundShadow
from vine_swing.motion.edits.rules import AddRule, DeleteRule, FreezeChannel, LinkSetting, MoveRule, SetRule, SetSetting
from vine_swing.motion.edits.scene import BlurObject, RenameScene, SetBackground, SetBlur, SetFps, SetLength, SetPalette, SetSize
from vine_swing.motion.edits.several import AddObjects
from vine_swing.motion.edits.several_values import ChangeValues, KeyObjects, LockObjects, TagObjects
from vine_swing.motion.edits.sounds import AddSound, DeleteSound, SetBeat, SetMarkers, SetSound
from vine_swing.motion.edits.spans import FitInset, FitParts, SetSpan
from vine_swing.motion.edits.take_apart import TakeApart
from vine_swing.motion.edits.timing import CloseLoop, EvenSpeed, HoldHere, PasteKeys, ReverseKeys, SpreadKeys, StretchKeys
from vine_swing.motion.edits.transforming import TransformObjects
from vine_swing.motion.edits.turns import Flip, TurnTimes
from vine_swing.motion.scene.checking import checked
from vine_swing.motion.scene.model import Scene
from vine_swing.motion.scene.scene_file import faults

__all__ = ["AnyEdit", "Edit", "apply_all", "apply_labelled", "free_name", "label_of"]

AnyEdit = Annotated[
    AddObject
    | AddObjects
    | DuplicateObjects
    | RenameObject
    | ReorderObject
    | ReparentObject
    | ShowObject
    | DeleteObject
    | SetShape
    | MakeOutline
    | SetOutline
    | MovePoints
    | SetPointHandle
    | AddPoint
    | RemovePoints
    | SetPoints
    | CutOutline
    | JoinEnds
    | ReverseOutline
    | FirstPoint
    | MeetPoints
    | DrawOutline
    | RefitOutline
    | CombineOutlines
    | OutlineLine
    | SetPalette
    | AddPicture
    | SetPicture
    | TurnPages
    | LayBehind
    | ReplacePicture
    | DropPictures
    | AddCamera
    | SetDepths
    | PinObject
    | MakeInset
    | AddInset
    | SetInset
    | OwnInset
    | OpenInset
    | DropInsets
    | FitInset
    | MovePivot
    | SetSpan
    | FitParts
    | SetValue
    | SetKey
    | MoveKeys
    | DeleteKeys
    | SetEase
    | SetEnds
    | SetHandles
    | SetSpeed
    | SetBend
    | StretchKeys
    | ReverseKeys
    | SpreadKeys
    | EvenSpeed
    | HoldHere
    | CloseLoop
    | PasteKeys
    | SetWay
    | SetCorner
    | SplitPath
    | JoinPath
    | TurnTimes
    | AddRule
    | DeleteRule
    | MoveRule
    | SetRule
    | SetSetting
    | LinkSetting
    | FreezeChannel
    | AddDial
    | SetDial
    | DeleteDial
    | AddSound
    | SetSound
    | DeleteSound
    | SetMarkers
    | SetBeat
    | KeysOnBeats
    | StepOnBeats
    | AddCue
    | SetCue
    | DeleteCue
    | LayPresses
    | AddFigure
    | SetFigure
    | HangOnBones
    | MakeParade
    | SetParade
    | OpenParade
    | TakeApart
    | PoseJoints
    | SetGait
    | TravelCycle
    | FreezeWalk
    | Flip
    | AddFont
    | RemoveFont
    | SetLine
    | MoveObjects
    | AlignObjects
    | DistributeObjects
    | SpreadInTime
    | TransformObjects
    | OrderObjects
    | ChangeValues
    | KeyObjects
    | LockObjects
    | PlaceParcel
    | BringBack
    | TagObjects
    | HushNote
    | LaySamples
    | BringKeys
    | GroundShadow
    | FogByDistance
    | SetGradient
    | AddStop
    | RemoveStop
    | SetBlend
    | SetBlur
    | BlurObject
    | RenameScene
    | SetFps
    | SetLength
    | SetSize
    | SetBackground,
    Field(discriminator="edit"),
]


def apply_all(scene: Scene, edits: Sequence[Edit]) -> Scene:
    """The scene after several edits in order; if one is refused, none has happened.

    Raises:
        EditError: from the first edit that does not fit, or if the scene they make is not one that a scene file could hold.
    """
    return apply_labelled(scene, edits)[0]


def apply_labelled(scene: Scene, edits: Sequence[Edit]) -> tuple[Scene, str]:
    """As `apply_all`, with what undo says it takes back."""
    after, labels = scene, dict[str, None]()
    for edit in edits:
        try:
            # A label is read off the scene before its edit.
            labels[edit.label(after)] = None
            after = edit.apply(after)
        except ValidationError as error:
            # Computed values of an edit (a coasted value, a shifted key) can be beyond the limits of the model.
            raise EditError(f"that would go out of reach: {'; '.join(faults(error))}") from error
    try:
        after = checked(after, since=scene)
    except ValidationError as error:
        raise EditError(f"that would not be a scene any more: {'; '.join(faults(error))}") from error
    first = next(iter(labels))
    return after, first if len(labels) == 1 else f"{first} and {len(labels) - 1} more"


def label_of(scene: Scene, edits: Sequence[Edit]) -> str:
    """What undo says it takes back for several edits made at once."""
    return apply_labelled(scene, edits)[1]
