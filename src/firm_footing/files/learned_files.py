"""What was learned, in a file: read, and checked against the knowledge it was learned with."""

from pathlib import Path

from pydantic import ValidationError

from firm_footing.core.knowledge import Knowledge
from firm_footing.core.learning.learned import Learned, unknown_in
from firm_footing.files.case_files import BadCaseError, first_problem
from firm_footing.files.plain_json import BadJsonError, read_json


def read_learned(path: Path, knowledge: Knowledge) -> Learned:
    """What a file holds; BadCaseError says in one line what is wrong, and where."""
    try:
        learned = Learned.model_validate(read_json(path.read_bytes()))
    except OSError as error:
        said = str(error.strerror or error).lower()
        raise BadCaseError("file", said, "check the path") from error
    except BadJsonError as error:
        raise BadCaseError(error.place, error.problem, error.remedy) from error
    except ValidationError as error:
        raise first_problem(error.errors()) from error
    if unknown := unknown_in(learned, knowledge):
        said = f"no cause and no look is called '{unknown}'"
        raise BadCaseError("file", said, "learn again with this version")
    return learned


def write_learned(learned: Learned, to: Path) -> None:
    """The same, to be read again; what is equal is written alike."""
    to.write_text(learned.model_dump_json(indent=1) + "\n", encoding="utf-8")
