"""How the addresses of the interface begin, and what all of them may answer."""

from fastapi import APIRouter

from vine_swing.service.problems import RESPONSES


def api_router(tag: str) -> APIRouter:
    """A router for addresses that begin with /api, listed under a tag. Its routes are complete, so that an application takes them over as they are:
    including the router would read the signatures of all of them once more."""
    return APIRouter(prefix="/api", tags=[tag], responses=RESPONSES)
