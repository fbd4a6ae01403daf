"""Who is at Gorse Quay today? The demo data, made by running the real code.

`demo.yaml` holds only made-up people and what is hidden in them. Balls and answers come from the
simulated student, rankings and decisions from the diagnosis.
"""

from dataclasses import dataclass, replace
from datetime import datetime, timedelta
from pathlib import Path
from typing import Any

import numpy as np
import yaml
from sqlmodel import Session

from firm_footing.core.case import Case, Stance, Trace
from firm_footing.core.coaching.ladder import Result
from firm_footing.core.coaching.lesson import Cue, Listen
from firm_footing.core.diagnosis.diagnosis import diagnose
from firm_footing.core.knowledge import Knowledge
from firm_footing.simulators.film.marking import with_films
from firm_footing.simulators.pressing import Habit, habit_of, press
from firm_footing.simulators.student import SimulatedStudent, answer, hit_block, make_student
from firm_footing.store.cases import store_case
from firm_footing.store.coaching import add_time, put_follow_up, put_repetition
from firm_footing.store.columns import now
from firm_footing.store.decisions import add_decision
from firm_footing.store.instructors import add_instructor
from firm_footing.store.known import KNOWLEDGE
from firm_footing.store.learning import keep, learn_from_lessons, lessons_to_study, study
from firm_footing.store.lesson_reading import content_of
from firm_footing.store.lessons import change_lesson, put_block
from firm_footing.store.shots import put_shot
from firm_footing.store.tables import USUALLY_AT_HAND, Lesson, Student
from firm_footing.store.traces import put_trace

PEOPLE = Path(__file__).with_name("demo.yaml")
GIVEN_BY = "Runa Veldt"
WITH_A_PHONE = (*USUALLY_AT_HAND, "film")
TAPS: dict[str, Result] = {"P": "pass", "E": "early", "L": "late"}
STUDENT_FIELDS = (
    "name",
    "about",
    "handedness",
    "handicap",
    "dominant_leg",
    "age_group",
    "guardian_agreed",
    "archived",
)


def fill_with_demo(session: Session, knowledge: Knowledge) -> None:
    """Put everyone and their lessons into an empty database."""
    session.info[KNOWLEDGE] = knowledge
    add_instructor(session, {"name": GIVEN_BY, "place": "Gorse Quay"})
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
            person_here = Person(student, hidden, habit, feet, rng, person["seed"])
            _add_lesson(session, person_here, plan, knowledge)
    for lesson in lessons_to_study(session, knowledge):
        if studied := study(session, lesson, knowledge):
            keep(session, studied)
    keep(session, learn_from_lessons(session, knowledge))


@dataclass(frozen=True)
class Person:
    """One of the demo's students, with what is hidden in them."""

    student: Student
    hidden: SimulatedStudent
    habit: Habit
    feet: np.random.Generator
    rng: np.random.Generator
    seed: int

    def swings(self, count: int, gone: float, knowledge: Knowledge) -> tuple[Trace, ...]:
        """So many swings on the mat, this part of the causes gone."""
        severity = {c: s * (1 - gone) for c, s in self.hidden.severity.items()}
        here = replace(self.hidden, severity=severity)
        return tuple(
            press(here, self.habit, "recentre", knowledge, self.feet, name_events=True)
            for _ in range(count)
        )


def _add_lesson(
    session: Session, person: Person, plan: dict[str, Any], knowledge: Knowledge
) -> None:
    student, rng = person.student, person.rng
    gone = plan.get("better", 0.0)
    here = better(person.hidden, gone, knowledge)
    block = hit_block(here, plan["balls"], plan["club"], plan["expected_carry_m"], knowledge, rng)
    stance = Stance(**plan["stance"]) if "stance" in plan else None
    case = Case(
        handedness=student.handedness,
        handicap=student.handicap,
        dominant_leg=student.dominant_leg,
        limits=student.limits,
        blocks=(block.model_copy(update={"stance": stance}),),
        readings=tuple(answer(here, look, knowledge, rng) for look in plan["looks"]),
        traces=person.swings(plan.get("swings", 0), gone, knowledge),
    )
    if plan.get("films"):
        eyes = np.random.default_rng([person.seed, 2])
        case = with_films(here, case, knowledge, eyes)
    lesson = store_case(session, case, student, knowledge, complaint=plan["complaint"])
    lesson.started_at = now() - timedelta(
        days=plan["days_ago"], minutes=plan.get("minutes_ago", 20)
    )
    lesson.at_hand = tuple(plan.get("at_hand", WITH_A_PHONE))
    lesson.given_by = GIVEN_BY
    lesson.finished = plan.get("finished", False)
    lesson.listen = _listen(plan.get("listen", {}), lesson.started_at)
    session.add(lesson)
    session.commit()
    if "stage" in plan:
        spent = {"listen": 200.0, "shots": 420.0, "look": 380.0, "pressure": 150.0, "decide": 120.0}
        for stage, seconds in spent.items():
            add_time(session, lesson.id, stage, seconds, plan["stage"])
            if stage == plan["stage"]:
                break
    if plan.get("decide"):
        first = diagnose(case, knowledge).causes[0].id
        cause = first if plan["decide"] is True else plan["decide"]
        reason = plan.get("reason") or ("" if cause == first else SEEN_ENOUGH)
        add_decision(session, lesson.id, cause, reason, knowledge)
        decision = content_of(session, lesson.id).decisions[-1]
        decision.decided_at = lesson.started_at + timedelta(minutes=25)
        session.add(decision)
        session.commit()
        _after_the_decision(session, lesson, person, plan, knowledge)


SEEN_ENOUGH = "Seen again and again in slow motion with the student."
"""Why a demo lesson decides on a cause that does not stand first, where its plan does not say."""


def _listen(said: dict[str, Any], started_at: datetime) -> Listen:
    """What was heard; the event is so many days after the lesson."""
    said = dict(said)
    event_in = said.pop("event_in", None)
    if event_in is not None:
        said["event_on"] = (started_at + timedelta(days=event_in)).date().isoformat()
    return Listen(**said)


def _after_the_decision(
    session: Session,
    lesson: Lesson,
    person: Person,
    plan: dict[str, Any],
    knowledge: Knowledge,
) -> None:
    """Cue, bench, retest, what was sent home and what came back, as far as the plan goes."""
    values: dict[str, Any] = {}
    if "cue" in plan:
        values["cue"] = Cue(text=plan["cue"], felt=plan.get("felt", {}))
    if "drill" in plan:
        values["drill"] = plan["drill"]
    if values:
        change_lesson(session, lesson.id, values)
    for i, tap in enumerate(plan.get("taps", "")):
        put_repetition(session, lesson.id, f"{lesson.id}-{i}", plan["drill"], TAPS[tap])
    if "retest" in plan:
        _retest(session, lesson, person, plan, knowledge)
    if "comes" in plan:
        change_lesson(session, lesson.id, {"next_at": _coming(**plan["comes"])})
    if "due_in" in plan:
        due = (lesson.started_at + timedelta(days=plan["due_in"])).date()
        put_follow_up(session, lesson.id, due, dict(plan.get("came_back", {})))


def _coming(in_days: int, at: str) -> datetime:
    """A time of a day from today on, on this machine's clock."""
    hour, minute = map(int, at.split(":"))
    day = now().astimezone() + timedelta(days=in_days)
    return day.replace(hour=hour, minute=minute, second=0, microsecond=0)


def _retest(
    session: Session,
    lesson: Lesson,
    person: Person,
    plan: dict[str, Any],
    knowledge: Knowledge,
) -> None:
    """Balls without a constraint after the drill, the cause partly gone."""
    balls, gone = plan["retest"]["balls"], plan["retest"]["better"]
    change_lesson(session, lesson.id, {"primary": plan["retest"]["primary"]})
    block_id = f"{lesson.id}-retest"
    put_block(session, lesson.id, block_id, {"kind": "retest", "club": plan["club"]})
    after = better(person.hidden, gone, knowledge)
    hit = hit_block(after, balls, plan["club"], plan["expected_carry_m"], knowledge, person.rng)
    for i, shot in enumerate(hit.shots):
        put_shot(session, lesson.id, f"{block_id}-{i}", block_id, shot, {})
    swings = person.swings(plan["retest"].get("swings", 0), gone, knowledge)
    for i, trace in enumerate(swings):
        put_trace(session, lesson.id, f"{block_id}-swing-{i}", trace, block_id, f"after {i + 1}")


def better(student: SimulatedStudent, gone: float, knowledge: Knowledge) -> SimulatedStudent:
    """The same student with this part of what the causes do gone; only causes without sides."""
    delivery = student.delivery.copy()
    for name, severity in student.severity.items():
        cause = knowledge.cause[name]
        row = knowledge.effects[name, student.mode if cause.skill else None, None]
        delivery -= gone * severity * np.array(row)
    return replace(student, delivery=delivery)
