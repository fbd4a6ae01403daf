"""Who is at Gorse Quay today? The demo data, made by running the real code.

`demo.yaml` holds only made-up people and what is hidden in them. Balls and answers come from the
simulated student, rankings and decisions from the diagnosis.
"""

from datetime import timedelta
from pathlib import Path
from typing import Any

import numpy as np
import yaml
from sqlmodel import Session

from firm_footing.core.case import Case, Trace
from firm_footing.core.knowledge import Knowledge
from firm_footing.core.reasoning import diagnose
from firm_footing.standins.pressing import habit_of, press
from firm_footing.standins.student import SimulatedStudent, answer, hit_block, make_student
from firm_footing.store.cases import store_case
from firm_footing.store.columns import now
from firm_footing.store.decisions import add_decision
from firm_footing.store.tables import USUALLY_AT_HAND, Student

PEOPLE = Path(__file__).with_name("demo.yaml")
STUDENT_FIELDS = ("name", "about", "handedness", "handicap", "dominant_leg", "age_group")


def fill_with_demo(session: Session, knowledge: Knowledge) -> None:
    """Put everyone and their lessons into an empty database."""
    for person in yaml.safe_load(PEOPLE.read_text(encoding="utf-8")):
        student = Student(
            **{name: person[name] for name in STUDENT_FIELDS if name in person},
            limits=tuple(person.get("limits", ())),
        )
        rng = np.random.default_rng(person["seed"])
        handicap = person.get("handicap", knowledge.numbers.handicap_left_out)
        hidden = make_student(person["causes"], handicap, person["mode"], knowledge, rng)
        feet = np.random.default_rng([person["seed"], 1])
        habit = habit_of(hidden, feet)
        for plan in person["lessons"]:
            swings = tuple(
                press(hidden, habit, "recentre", knowledge, feet, name_events=True)
                for _ in range(plan.get("swings", 0))
            )
            _add_lesson(session, student, hidden, plan, swings, knowledge, rng)


def _add_lesson(
    session: Session,
    student: Student,
    hidden: SimulatedStudent,
    plan: dict[str, Any],
    swings: tuple[Trace, ...],
    knowledge: Knowledge,
    rng: np.random.Generator,
) -> None:
    block = hit_block(hidden, plan["balls"], plan["club"], plan["expected_carry_m"], knowledge, rng)
    case = Case(
        handedness=student.handedness,
        handicap=student.handicap,
        dominant_leg=student.dominant_leg,
        limits=student.limits,
        blocks=(block,),
        readings=tuple(answer(hidden, look, knowledge, rng) for look in plan["looks"]),
        traces=swings,
    )
    lesson = store_case(session, case, student, knowledge, complaint=plan["complaint"])
    lesson.started_at = now() - timedelta(days=plan["days_ago"], minutes=20)
    lesson.at_hand = tuple(plan.get("at_hand", USUALLY_AT_HAND))
    lesson.finished = plan.get("finished", False)
    session.add(lesson)
    session.commit()
    if plan.get("decide"):
        add_decision(session, lesson.id, diagnose(case, knowledge).start_with, "", knowledge)
