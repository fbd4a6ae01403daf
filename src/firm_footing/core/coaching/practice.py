"""What is practised on which day until the check-in?

Rehearsals without a ball a little every day, balls on every second, and only what is finished at
set-up on the days before an event.
"""

from dataclasses import dataclass
from datetime import date, timedelta
from typing import Literal

from firm_footing.core.knowledge.coaching import PracticeNumbers

What = Literal["rehearse", "balls", "setup_only", "event", "check_in"]


@dataclass(frozen=True)
class PracticeDay:
    """One day.

    minutes : without a ball
    balls : with the ball drill
    """

    on: date
    what: What
    minutes: int
    balls: int


def near_event(today: date, event: date | None, numbers: PracticeNumbers) -> bool:
    """Whether the event is so close that only set-up is changed."""
    return event is not None and 0 <= (event - today).days <= numbers.setup_only_days


def plan_practice(
    today: date, event: date | None, with_balls: bool, numbers: PracticeNumbers
) -> tuple[PracticeDay, ...]:
    """Day by day from tomorrow to the check-in, which is the day after the event or after a while.

    event : None, or a day gone by, when there is none
    with_balls : whether there is a drill to hit balls with
    """
    ahead = event if event is not None and event > today else None
    usual = today + timedelta(days=numbers.check_in_days)
    last = ahead + timedelta(days=1) if ahead is not None and ahead <= usual else usual
    days = []
    for number in range(1, (last - today).days + 1):
        on = today + timedelta(days=number)
        days.append(_day(on, number, ahead, last, with_balls, numbers))
    return tuple(days)


def _day(
    on: date,
    number: int,
    event: date | None,
    last: date,
    with_balls: bool,
    numbers: PracticeNumbers,
) -> PracticeDay:
    if event is not None and on == event:
        return PracticeDay(on, "event", 0, 0)
    if on == last:
        return PracticeDay(on, "check_in", 0, 0)
    if event is not None and 0 < (event - on).days <= numbers.setup_only_days:
        return PracticeDay(on, "setup_only", numbers.minutes, 0)
    if with_balls and number % 2 == 0:
        return PracticeDay(on, "balls", numbers.minutes, numbers.balls)
    return PracticeDay(on, "rehearse", numbers.minutes, 0)
