"""Does this file hold a case, and if not, what is wrong where?"""

from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from difflib import get_close_matches
from pathlib import Path
from typing import Any

from pydantic import ValidationError

from firm_footing.core.case import Case, CaseFile, from_file
from firm_footing.core.case.file_format import ANSWER_SHAPES, readings_of
from firm_footing.core.case.still import FileStill
from firm_footing.core.inference.trace_answers import drill_in_force
from firm_footing.core.knowledge import Knowledge
from firm_footing.core.pressure.recorded import TraceError
from firm_footing.core.pressure.trace import read_trace
from firm_footing.files.plain_json import BadJsonError, read_json
from firm_footing.files.still_files import StillError, plain_jpeg

NEWEST = 1
"""The newest version of the format that is read."""


@dataclass
class BadCaseError(Exception):
    """A case file that cannot be read: where in it, what is wrong, what would be right."""

    place: str
    problem: str
    remedy: str

    def __str__(self) -> str:
        """One line without the file's name."""
        return f"{self.place}: {self.problem}; {self.remedy}"


def read_case_file(path: Path, knowledge: Knowledge) -> Case:
    """The case in a file; BadCaseError says in one line what is wrong."""
    return read_file_and_case(path, knowledge)[1]


def read_file_and_case(path: Path, knowledge: Knowledge) -> tuple[CaseFile, Case]:
    """The same, with what the file says of the case besides: its outcome, and whose it is.

    Raises
    ------
    BadCaseError
        In one line what is wrong, and where in the file.

    """
    try:
        data = path.read_bytes()
    except OSError as error:
        raise BadCaseError(
            "file", str(error.strerror or error).lower(), "check the path"
        ) from error
    file = parse_case(data, knowledge)
    case = in_si(file)
    _traces_can_be_read(case, knowledge)
    return file, case


def _traces_can_be_read(case: Case, knowledge: Knowledge) -> None:
    """A trace that says nothing would be dropped without a word."""
    for i, trace in enumerate(case.traces):
        try:
            read_trace(trace, case.school.pressure, knowledge, drill_in_force(case, i))
        except TraceError as error:
            said = str(error).rstrip(".")
            raise BadCaseError(
                f"traces.{i}",
                f"it cannot be read as a swing: {said[0].lower()}{said[1:]}",
                "put it right, or leave the trace out",
            ) from error


def parse_case(data: bytes, knowledge: Knowledge) -> CaseFile:
    """A case file from its text, checked against the knowledge's ids.

    Raises
    ------
    BadCaseError
        In one line what is wrong, and where in the file.

    """
    try:
        raw = read_json(data)
    except BadJsonError as error:
        raise BadCaseError(error.place, error.problem, error.remedy) from error
    return check_case(raw, knowledge)


def in_si(file: CaseFile) -> Case:
    """The case of a file; BadCaseError where a number of its units is beyond what can be."""
    try:
        return from_file(file)
    except ValidationError as error:
        raise first_problem(error.errors()) from error


def check_case(raw: Any, knowledge: Knowledge) -> CaseFile:
    """A case file from parsed JSON, checked against the knowledge's ids.

    Raises
    ------
    BadCaseError
        In one line what is wrong, and where in the file.

    """
    version = raw.get("version") if isinstance(raw, dict) else None
    if isinstance(version, int) and version > NEWEST:
        raise BadCaseError(
            "version", f"{version} is newer than this program knows", "install a newer one"
        )
    try:
        case = CaseFile.model_validate(raw)
    except ValidationError as error:
        raise first_problem(error.errors()) from error
    check_sense(case, knowledge)
    return case


def check_sense(case: CaseFile, knowledge: Knowledge) -> None:
    """BadCaseError when the file fits its schema but names what is not there."""
    for i, block in enumerate(case.blocks):
        _known(f"blocks.{i}.club", block.club, knowledge.club, "club")
        if block.drill is not None:
            _known(f"blocks.{i}.drill", block.drill, knowledge.drill, "drill")
        elif block.kind == "trial":
            raise BadCaseError(f"blocks.{i}", "a trial names its drill", "add the key 'drill'")
    for name, answer in case.checks.items():
        _known(f"checks.{name}", name, knowledge.check, "check")
        for reading in readings_of(answer):
            _block_exists(f"checks.{name}.block", reading.block, case)
    for i, trace in enumerate(case.traces):
        _block_exists(f"traces.{i}.block", trace.block, case)
        for row, sample in enumerate(trace.samples):
            if len(sample) != len(trace.columns):
                raise BadCaseError(
                    f"traces.{i}.samples.{row}",
                    f"{len(sample)} values for {len(trace.columns)} columns",
                    "give one value for each column, null where there is none",
                )

    for i, film in enumerate(case.films):
        _block_exists(f"films.{i}.block", film.block, case)
        if film.out_of_order is not None:
            raise BadCaseError(
                f"films.{i}.events",
                f"'{film.out_of_order[1]}' does not come after '{film.out_of_order[0]}'",
                "events are in the order of a swing",
            )
        for point in film.points:
            _known(f"films.{i}.points", point, knowledge.film.point, "point")
        if film.scale is not None:
            _known(f"films.{i}.scale.by", film.scale.by, knowledge.film.scale, "scale")

        for measure in film.felt:
            felt = [m.id for m in knowledge.film.measures if m.felt_on]
            _known(f"films.{i}.felt", measure, felt, "measure that is pointed at")
    for i, past in enumerate(case.history):
        _known(f"history.{i}.decided", past.decided, knowledge.cause, "cause")
    if case.outcome is not None:
        _known("outcome.decided", case.outcome.decided, knowledge.cause, "cause")
    for i, still in enumerate(case.stills):
        if still.film is not None and still.film >= len(case.films):
            raise BadCaseError(
                f"stills.{i}.film", f"there is no film {still.film}", "films count from 0"
            )


def plain_stills(file: CaseFile) -> tuple[FileStill, ...]:
    """The stills as they are kept; BadCaseError where one is no picture."""
    plain = []
    for i, still in enumerate(file.stills):
        try:
            picture = plain_jpeg(still.jpeg_base64)
        except StillError as error:
            raise BadCaseError(
                f"stills.{i}.jpeg_base64", str(error), "leave the still out, or give a JPEG"
            ) from error
        plain.append(still.model_copy(update={"jpeg_base64": picture}))
    return tuple(plain)


def _block_exists(place: str, block: int | None, case: CaseFile) -> None:
    if block is not None and block >= len(case.blocks):
        raise BadCaseError(
            place, f"there is no block {block}", f"blocks count from 0 to {len(case.blocks) - 1}"
        )


def _known(place: str, value: str, known: Iterable[str], kind: str) -> None:
    known = list(known)
    if value in known:
        return
    near = get_close_matches(value, known, n=1)
    remedy = f"did you mean '{near[0]}'?" if near else f"known are {', '.join(known[:8])} …"
    raise BadCaseError(place, f"no {kind} is called '{value}'", remedy)


def first_problem(problems: Sequence[Any]) -> BadCaseError:
    """The first of Pydantic's problems, in words."""
    first = problems[0]
    place = ".".join(str(step) for step in first["loc"] if step not in ANSWER_SHAPES) or "file"
    return BadCaseError(place, *_in_words(first))


def _in_words(problem: Any) -> tuple[str, str]:
    """What is wrong and what would be right."""
    kind, context = problem["type"], problem.get("ctx", {})
    if kind == "extra_forbidden":
        return "unknown key", "remove it or correct its spelling"
    if kind == "missing":
        return "missing", "add it"
    if kind == "literal_error":
        return f"'{problem['input']}' is not allowed", f"one of {context['expected']}"
    if kind == "union_tag_invalid" and context["discriminator"] == "'kind'":
        return f"'{context['tag']}' is no kind", f"one of {context['expected_tags']}"
    if kind.startswith("union_tag"):
        return "neither a word, an answer with its source nor a list", "see docs/case.schema.json"
    message = problem["msg"].removeprefix("Value error, ")
    return message[0].lower() + message[1:], f"it holds {problem['input']!r:.60}"
