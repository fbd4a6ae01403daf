"""What does the trade know? The models of the knowledge files and their cross-checks."""

from firm_footing.core.knowledge.build import KnowledgeError, build_knowledge
from firm_footing.core.knowledge.causes import Cause, Mechanism
from firm_footing.core.knowledge.checks import Check
from firm_footing.core.knowledge.clubs import Club
from firm_footing.core.knowledge.coaching import Drill
from firm_footing.core.knowledge.library import Knowledge
from firm_footing.core.knowledge.vocabulary import DIMENSIONS, FEET_GROUPS

__all__ = [
    "DIMENSIONS",
    "FEET_GROUPS",
    "Cause",
    "Check",
    "Club",
    "Drill",
    "Knowledge",
    "KnowledgeError",
    "Mechanism",
    "build_knowledge",
]
