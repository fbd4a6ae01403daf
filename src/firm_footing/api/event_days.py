"""How far off is the student's next event?"""

from firm_footing.store.tables import Lesson


def event_in(lesson: Lesson) -> int | None:
    """Days from the lesson to the event, negative when it had gone by; None without one."""
    day = lesson.listen.event_on
    return None if day is None else (day - lesson.day).days
