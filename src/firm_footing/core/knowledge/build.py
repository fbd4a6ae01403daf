"""Are the knowledge files right? Each is validated, then all are held against each other."""

import hashlib
import json
from collections.abc import Mapping
from typing import Any, TypeVar

from pydantic import TypeAdapter, ValidationError

from firm_footing.core.knowledge.casebook import CasebookNumbers
from firm_footing.core.knowledge.causes import Cause, Mechanism
from firm_footing.core.knowledge.checks import Check
from firm_footing.core.knowledge.clubs import ClubsFile
from firm_footing.core.knowledge.coaching import Cautions, Drill, Equipment
from firm_footing.core.knowledge.cross_check import problems_of
from firm_footing.core.knowledge.cues import Cues
from firm_footing.core.knowledge.film import FilmNumbers
from firm_footing.core.knowledge.library import Knowledge
from firm_footing.core.knowledge.measures import MeasuresFile
from firm_footing.core.knowledge.misses import Miss
from firm_footing.core.knowledge.numbers import Numbers
from firm_footing.core.knowledge.plausible import Plausible
from firm_footing.core.knowledge.poses import Poses
from firm_footing.core.knowledge.pressure import (
    Corridors,
    FeelTest,
    FeltQuestion,
    Sign,
    TraceNumbers,
)
from firm_footing.core.knowledge.schools import Schools

FILES = (
    "causes",
    "mechanisms",
    "checks",
    "drills",
    "equipment",
    "schools",
    "corridors",
    "signs",
    "traces",
    "feel_tests",
    "felt",
    "film",
    "cautions",
    "misses",
    "measures",
    "cues",
    "poses",
    "clubs",
    "plausible",
    "numbers",
    "casebook",
)
"""Names of the knowledge files, without `.yaml`."""

T = TypeVar("T")


class KnowledgeError(ValueError):
    """A knowledge file is wrong; the message names file and entry."""


def build_knowledge(files: Mapping[str, Any]) -> Knowledge:
    """Validate parsed files (name without ending -> content) into one `Knowledge`.

    Raises
    ------
    KnowledgeError
        Naming the file and the entry that is wrong, for the first thing found wrong.

    """
    missing = [name for name in FILES if name not in files]
    if missing:
        raise KnowledgeError(f"knowledge/{missing[0]}.yaml: the file is missing")
    clubs = _parse(ClubsFile, "clubs", files)
    knowledge = Knowledge(
        causes=_parse(tuple[Cause, ...], "causes", files),
        mechanisms=_parse(tuple[Mechanism, ...], "mechanisms", files),
        checks=_parse(tuple[Check, ...], "checks", files),
        drills=_parse(tuple[Drill, ...], "drills", files),
        equipment=_parse(tuple[Equipment, ...], "equipment", files),
        schools=_parse(Schools, "schools", files),
        corridors=_parse(Corridors, "corridors", files),
        signs=_parse(tuple[Sign, ...], "signs", files),
        traces=_parse(TraceNumbers, "traces", files),
        feel_tests=_parse(tuple[FeelTest, ...], "feel_tests", files),
        felt=_parse(tuple[FeltQuestion, ...], "felt", files),
        film=_parse(FilmNumbers, "film", files),
        cautions=_parse(Cautions, "cautions", files),
        misses=_parse(tuple[Miss, ...], "misses", files),
        measures=_parse(MeasuresFile, "measures", files).measures,
        cues=_parse(Cues, "cues", files),
        poses=_parse(Poses, "poses", files),
        clubs=clubs.with_heads(),
        casebook=_parse(CasebookNumbers, "casebook", files),
        plausible=_parse(Plausible, "plausible", files),
        numbers=_parse(Numbers, "numbers", files),
        version=_version(files),
    )
    for problem in problems_of(knowledge):
        raise KnowledgeError(problem)
    return knowledge


def _version(files: Mapping[str, Any]) -> str:
    """A short fingerprint of the content: the same words and numbers give the same version."""
    text = json.dumps({name: files[name] for name in FILES}, sort_keys=True, default=str)
    return hashlib.sha256(text.encode()).hexdigest()[:12]


def _parse(kind: type[T], name: str, files: Mapping[str, Any]) -> T:
    raw = files[name]
    try:
        return TypeAdapter(kind).validate_python(raw)
    except ValidationError as error:
        first = error.errors()[0]
        raise KnowledgeError(
            f"knowledge/{name}.yaml: {_place(raw, first['loc'])}: {first['msg']}"
        ) from error


def _place(raw: Any, path: tuple[int | str, ...]) -> str:
    """The entry's id and the key inside it, as one would say it."""
    words: list[str] = []
    value = raw
    for step in path:
        try:
            value = value[step]
        except (KeyError, IndexError, TypeError):
            value = None
        if isinstance(step, int) and isinstance(value, dict) and "id" in value:
            words.append(f"entry '{value['id']}'")
        else:
            words.append(str(step))
    return " › ".join(words) or "whole file"
