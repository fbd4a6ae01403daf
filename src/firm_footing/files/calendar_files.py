"""The practice days and the check-in as an iCalendar file (RFC 5545)."""

from collections.abc import Sequence
from datetime import UTC, date, datetime, timedelta

from icalendar import Calendar, Event

from firm_footing.core.coaching.practice import PracticeDay

LESSON = timedelta(hours=1)
TITLES = {
    "rehearse": "Practice: {minutes} min without a ball",
    "balls": "Practice: {minutes} min without a ball, {balls} balls",
    "setup_only": "Set-up only, {minutes} min",
    "event": "Event: nothing new",
    "check_in": "Check in with the instructor",
}


def lessons_calendar(coming: Sequence[tuple[str, datetime, str, str]], made_at: datetime) -> bytes:
    """Lessons that were agreed.

    Parameters
    ----------
    coming : id of the lesson in which it was agreed, when, the student's name, the cause taken up

    """
    calendar = _calendar("lessons")
    for lesson_id, at, name, cause in coming:
        entry = Event()
        entry.add("uid", f"{lesson_id}-next@firm-footing")
        entry.add("dtstamp", made_at.astimezone(UTC))
        entry.add("dtstart", at.astimezone(UTC))
        entry.add("dtend", at.astimezone(UTC) + LESSON)
        entry.add("summary", f"Lesson: {name}")
        if cause:
            entry.add("description", f"Taken up: {cause}")
        calendar.add_component(entry)
    text: bytes = calendar.to_ical()
    return text


def _calendar(what: str) -> Calendar:
    calendar = Calendar()
    calendar.add("prodid", f"-//Firm Footing//{what}//EN")
    calendar.add("version", "2.0")
    return calendar


def practice_calendar(
    lesson_id: str, on: date, days: Sequence[PracticeDay], cue: str, made_at: datetime
) -> bytes:
    """All-day entries, one for each day; the same lesson makes the same ids.

    on : the day of the lesson
    made_at : now, with its zone
    """
    calendar = _calendar("practice")
    for day in days:
        entry = Event()
        entry.add("uid", f"{lesson_id}-{day.day}@firm-footing")
        entry.add("dtstamp", made_at.astimezone(UTC))
        entry.add("dtstart", on + timedelta(days=day.day))
        entry.add("dtend", on + timedelta(days=day.day + 1))
        entry.add("summary", TITLES[day.what].format(minutes=day.minutes, balls=day.balls))
        if cue and day.what in ("rehearse", "balls"):
            entry.add("description", cue)
        calendar.add_component(entry)
    text: bytes = calendar.to_ical()
    return text
