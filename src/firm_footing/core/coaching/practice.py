"""What is practised on which day until the check-in?

Rehearsals without a ball a little every day, balls on every second, and only what is finished at
set-up on the days before an event. Days count from the lesson, which is day 0.
"""

from dataclasses import dataclass
from typing import Literal

from firm_footing.core.knowledge.coaching import PracticeNumbers

What = Literal["rehearse", "balls", "setup_only", "event", "check_in"]


@dataclass(frozen=True)
class PracticeDay:
    """One day.

    day : after the lesson
    minutes : without a ball
    balls : with the ball drill
    """

    day: int
    what: What
    minutes: int
    balls: int


def near_event(event_in: int | None, numbers: PracticeNumbers) -> bool:
    """Whether the event, so many days off, is so close that only set-up is changed."""
    return event_in is not None and 0 <= event_in <= numbers.setup_only_days


def plan_practice(
    event_in: int | None,
    with_balls: bool,
    numbers: PracticeNumbers,
    minutes: int | None = None,
) -> tuple[PracticeDay, ...]:
    """Day by day to the check-in, which is the day after the event or after a while.

    event_in : days until the event; None, or a day gone by, when there is none
    with_balls : whether there is a drill to hit balls with
    minutes : of a day; None: as usual
    """
    if minutes is not None:
        numbers = numbers.model_copy(update={"minutes": minutes})
    event = event_in if event_in is not None and event_in > 0 else None
    usual = numbers.check_in_days
    last = event + 1 if event is not None and event <= usual else usual
    return tuple(_day(day, event, last, with_balls, numbers) for day in range(1, last + 1))


def _day(
    day: int, event: int | None, last: int, with_balls: bool, numbers: PracticeNumbers
) -> PracticeDay:
    if day == event:
        return PracticeDay(day, "event", 0, 0)
    if day == last:
        return PracticeDay(day, "check_in", 0, 0)
    if event is not None and 0 < event - day <= numbers.setup_only_days:
        return PracticeDay(day, "setup_only", numbers.minutes, 0)
    if with_balls and day % 2 == 0:
        return PracticeDay(day, "balls", numbers.minutes, numbers.balls)
    return PracticeDay(day, "rehearse", numbers.minutes, 0)
