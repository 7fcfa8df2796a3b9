"""Who drives whom in a scene, and the formulas of links made by hand."""

from typing import Annotated

from pydantic import BaseModel, ConfigDict, Field

from vine_swing.motion.basics.values import Frame, Owner
from vine_swing.motion.edits.linking import formula_by_hand
from vine_swing.motion.formula.by_hand import ByHand
from vine_swing.motion.scene.graph import Ref, drives
from vine_swing.service.api import api_router
from vine_swing.service.deps import SceneId, SessionsDep

router = api_router("links")


class Place(BaseModel):
    """A channel of an object, a setting of a rule of it (`rule:setting`), or the value of a dial (`dial:` and its id, "value")."""

    model_config = ConfigDict(extra="forbid")
    object: Owner
    channel: Annotated[str, Field(max_length=130)]

    @property
    def ref(self) -> Ref:
        """As the core names it."""
        return self.object, self.channel


class DriveWords(BaseModel):
    """One thing that drives another, and by which rule."""

    driver: Place
    driven: Place
    rule: str
    kind: str
    setting: str | None


class Drives(BaseModel):
    """Everything in a scene that drives something else, in the order of the troupe."""

    revision: int
    drives: list[DriveWords]


class LinkDraft(BaseModel):
    """What shall drive what, and how. With `keep_at`, nothing looks different at that frame."""

    model_config = ConfigDict(extra="forbid")
    driver: Place
    driven: Annotated[list[Place], Field(min_length=1, max_length=2000)]
    how: ByHand
    keep_at: Frame | None = None


class DraftedFormulas(BaseModel):
    """A formula for each of what shall be driven, in that order."""

    formulas: list[str]


@router.get("/scenes/{scene_id}/drives")
def list_drives(scene_id: SceneId, sessions: SessionsDep) -> Drives:
    """Who drives whom: links, followers, linked settings, tints."""
    with sessions.use(scene_id) as session:
        stored = session.stored
    found = [
        DriveWords(driver=_place(one.driver), driven=_place(one.driven), rule=one.rule, kind=one.kind, setting=one.setting)
        for one in drives(stored.scene)
    ]
    return Drives(revision=stored.revision, drives=found)


@router.post("/scenes/{scene_id}/link-drafts")
def draft_link(scene_id: SceneId, draft: LinkDraft, sessions: SessionsDep) -> DraftedFormulas:
    """The formulas of links made by hand. Nothing is kept: edits put them on."""
    with sessions.use(scene_id) as session:
        scene = session.stored.scene
    return DraftedFormulas(formulas=[formula_by_hand(scene, draft.driver.ref, one.ref, draft.how, draft.keep_at) for one in draft.driven])


def _place(ref: Ref) -> Place:
    return Place(object=ref[0], channel=ref[1])
