"""What does the program know of the trade? Everything a screen needs to name things."""

from fastapi import APIRouter
from pydantic import BaseModel

from firm_footing.api.context import Known
from firm_footing.core.knowledge import Cause, Check, Club, Drill, Mechanism
from firm_footing.core.knowledge.coaching import Cautions, Cues, Miss, Schools
from firm_footing.core.knowledge.pressure import FeelTest, Sign

router = APIRouter(tags=["knowledge"])


class KnowledgeOut(BaseModel):
    """The knowledge that screens show."""

    version: str
    causes: tuple[Cause, ...]
    mechanisms: tuple[Mechanism, ...]
    checks: tuple[Check, ...]
    drills: tuple[Drill, ...]
    clubs: tuple[Club, ...]
    schools: Schools
    cautions: Cautions
    signs: tuple[Sign, ...]
    feel_tests: tuple[FeelTest, ...]
    misses: tuple[Miss, ...]
    cues: Cues


@router.get("/knowledge", summary="Causes, checks, drills, clubs, schools, cautions, signs")
def read_knowledge(known: Known) -> KnowledgeOut:
    """Read-only: it is edited in the files under `knowledge/`."""
    return KnowledgeOut.model_validate(known, from_attributes=True)
