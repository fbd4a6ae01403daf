"""What does the program know of the trade? Everything a screen needs to name things."""

from fastapi import APIRouter
from pydantic import BaseModel, Field

from firm_footing.api.context import Known
from firm_footing.core.knowledge import Cause, Check, Club, Drill, Mechanism
from firm_footing.core.knowledge.coaching import Cautions, Cues, Equipment, Miss, Schools
from firm_footing.core.knowledge.poses import PoseView
from firm_footing.core.knowledge.pressure import FeelTest, Sign

router = APIRouter(tags=["knowledge"])


class Figure(BaseModel):
    """How a look is drawn, sound and unsound; see knowledge/poses.yaml for the numbers."""

    check: str
    view: PoseView
    sound: dict[str, float]
    unsound: dict[str, float]


class KnowledgeOut(BaseModel):
    """The knowledge that screens show."""

    version: str
    causes: tuple[Cause, ...]
    mechanisms: tuple[Mechanism, ...]
    checks: tuple[Check, ...]
    drills: tuple[Drill, ...]
    equipment: tuple[Equipment, ...]
    clubs: tuple[Club, ...]
    schools: Schools
    cautions: Cautions
    signs: tuple[Sign, ...]
    feel_tests: tuple[FeelTest, ...]
    misses: tuple[Miss, ...]
    cues: Cues
    figures: list[Figure] = Field(description="Looks that can be drawn")


@router.get("/knowledge", summary="Causes, checks, drills, clubs, schools, cautions, signs")
def read_knowledge(known: Known) -> KnowledgeOut:
    """Read-only: it is edited in the files under `knowledge/`."""
    figures = []
    for check, pose in known.poses.checks.items():
        sound, unsound = known.poses.pair(check) or ({}, {})
        figures.append(Figure(check=check, view=pose.view, sound=sound, unsound=unsound))
    parts = {n: getattr(known, n) for n in KnowledgeOut.model_fields if n != "figures"}
    return KnowledgeOut(**parts, figures=figures)
