"""When does the evidence carry a decision? The table is the specification."""

import numpy as np
import pytest

from firm_footing.core.knowledge import Knowledge
from firm_footing.core.reasoning.standing import where_it_stands

# balls, answers, first root, second root -> kind
TABLE = [
    (0, 0, 0.10, 0.08, "too_little"),
    (4, 2, 0.90, 0.02, "too_little"),
    (5, 0, 0.90, 0.02, "settled"),
    (0, 3, 0.60, 0.20, "settled"),
    (10, 6, 0.55, 0.40, "open"),
    (10, 6, 0.30, 0.25, "open"),
    (10, 6, 0.30, 0.10, "unclear"),
    (10, 6, 0.20, 0.18, "unclear"),
    (10, 6, 0.49, 0.10, "unclear"),
]


@pytest.mark.parametrize(("balls", "answers", "first", "second", "kind"), TABLE)
def test_where_a_decision_stands(
    knowledge: Knowledge, balls: int, answers: int, first: float, second: float, kind: str
) -> None:
    root = np.full(len(knowledge.causes), 0.01)
    root[[7, 3]] = first, second
    found = where_it_stands(root, balls, answers, knowledge)
    assert found.kind == kind
    assert found.enough == (kind == "settled")
    assert found.leading == (knowledge.causes[7].id, knowledge.causes[3].id)
    assert f"{balls} ball" in found.reason
    assert f"{answers} answer" in found.reason


def test_what_is_missing_is_counted(knowledge: Knowledge) -> None:
    root = np.linspace(0.1, 0.01, len(knowledge.causes))
    found = where_it_stands(root, 4, 2, knowledge)
    assert (found.balls_missing, found.answers_missing) == (1, 1)
    assert found.reason == "4 balls, 2 answers: wants 1 more ball or 1 more answer"
    enough = where_it_stands(root, 5, 2, knowledge)
    assert (enough.balls_missing, enough.answers_missing) == (0, 0)
