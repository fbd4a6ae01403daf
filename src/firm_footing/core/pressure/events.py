"""When did the swing's events happen?

Given moments are used as they are. The others are estimated: the first move from when the lead
share leaves its quiet place, the top from the tempo and from the dip of the vertical force, those
between by their usual part of the way. Impact is taken to be at zero when nobody says otherwise.
"""

from collections.abc import Mapping
from itertools import pairwise
from typing import Final, Literal, NamedTuple

import numpy as np

from firm_footing.core.frame.arrays import FloatArray
from firm_footing.core.knowledge.pressure import SWING_EVENTS, SwingEvent, Timing
from firm_footing.core.pressure.recorded import STEP_S, Recorded, TraceError

How = Literal["given", "estimated", "assumed"]

LEAST_APART_S: Final = 0.001


class Event(NamedTuple):
    """A moment of the swing.

    t_s : on the trace's own clock
    how : given, estimated from the trace, or assumed
    sd_s : standard deviation
    """

    t_s: float
    how: How
    sd_s: float


Events = dict[SwingEvent, Event]


def events_of(recorded: Recorded, given: Mapping[SwingEvent, float], timing: Timing) -> Events:
    """All eight events, in their order.

    Raises
    ------
    TraceError
        An event is not known, lies outside of the trace, or not in the order of a swing.

    """
    named = _checked(recorded, given, timing.given_sd_s)
    impact = named.get("impact") or _impact(recorded, named, timing)
    address = named.get("address") or _address(recorded, impact.t_s, named, timing)
    top = named.get("top") or _top(recorded, address, impact, named, timing)
    found: Events = {"address": address, "top": top, "impact": impact}
    for name, (start, end) in {
        "shaft_level_back": (address, top),
        "lead_arm_level_back": (address, top),
        "lead_arm_level_down": (top, impact),
        "shaft_level_down": (top, impact),
    }.items():
        part = getattr(timing, name)
        way = end.t_s - start.t_s
        ends_sd = (1 - part) * start.sd_s + part * end.sd_s
        sd = float(np.hypot(timing.between_sd_share * way, ends_sd))
        found[name] = named.get(name) or Event(start.t_s + part * way, "estimated", sd)  # type: ignore[index]
    last = float(recorded.t_s[-1])
    after = min(impact.t_s + timing.finish_after_s, max(last, impact.t_s + LEAST_APART_S))
    found["finish"] = named.get("finish") or Event(after, "estimated", timing.finish_after_s / 4)
    return _in_order({name: found[name] for name in SWING_EVENTS})


def _checked(
    recorded: Recorded, given: Mapping[SwingEvent, float], sd_s: float
) -> dict[str, Event]:
    unknown = [name for name in given if name not in SWING_EVENTS]
    if unknown:
        known = ", ".join(SWING_EVENTS)
        raise TraceError(f"No event is called '{unknown[0]}'; there are {known}.")
    first, last = float(recorded.t_s[0]) - 0.05, float(recorded.t_s[-1]) + 0.05
    for name, t in given.items():
        if not first <= t <= last:
            raise TraceError(
                f"'{name}' at {t:.2f} s lies outside of the trace, {first:.2f} to {last:.2f} s."
            )
    named = [(name, given[name]) for name in SWING_EVENTS if name in given]
    for (before, t), (after, u) in pairwise(named):
        if u - t < LEAST_APART_S:
            raise TraceError(f"'{after}' must come after '{before}'.")
    return {name: Event(float(t), "given", sd_s) for name, t in named}


def _in_order(found: Events) -> Events:
    """Estimated events give way to given ones on either side."""
    names = list(found)
    times = [found[name].t_s for name in names]
    fixed = [i for i, name in enumerate(names) if found[name].how != "estimated"]
    for i in range(len(names)):
        if i in fixed:
            continue
        before = max((times[j] for j in fixed if j < i), default=-np.inf)
        after = min((times[j] for j in fixed if j > i), default=np.inf)
        times[i] = float(np.clip(times[i], before + LEAST_APART_S, after - LEAST_APART_S))
    times = np.maximum.accumulate(times).tolist()
    return {name: found[name]._replace(t_s=t) for name, t in zip(names, times, strict=True)}


def _impact(recorded: Recorded, named: Mapping[str, Event], timing: Timing) -> Event:
    """At zero; where that cannot be, just after the lead share rose fastest."""
    shortest = timing.swing_s[0]
    before = max((e.t_s for name, e in named.items() if name != "finish"), default=-np.inf)
    after = named["finish"].t_s if "finish" in named else np.inf
    inside = recorded.t_s[0] + shortest <= 0.0 <= recorded.t_s[-1] + 0.05
    if inside and before < 0.0 < after:
        return Event(0.0, "assumed", timing.assumed_sd_s)
    rising = np.gradient(recorded.lead_pct, recorded.t_s)
    later = recorded.t_s >= recorded.t_s[0] + shortest
    if not later.any():
        raise TraceError("The trace is too short before impact; say when impact was.")
    at = recorded.t_s[np.flatnonzero(later)[np.argmax(rising[later])]]
    moment = min(at + sum(timing.downswing_s) / 4, recorded.t_s[-1])
    moment = np.clip(moment, before + LEAST_APART_S, after - LEAST_APART_S)
    return Event(float(moment), "estimated", timing.impact_sd_s)


def _address(
    recorded: Recorded, impact_s: float, named: Mapping[str, Event], timing: Timing
) -> Event:
    """The first move away: the last time before the farthest place that the share was at rest.

    Where the share hardly moves, as in those who stay on the lead side, the usual time of a swing.
    """
    shortest, longest = timing.swing_s
    first = float(recorded.t_s[0])
    top = named["top"].t_s if "top" in named else impact_s - timing.downswing_s[0]
    start = max(first, impact_s - longest)
    back = recorded.between(start, min(top, impact_s))
    share, t = recorded.lead_pct[back], recorded.t_s[back]
    latest = min((e.t_s for e in named.values()), default=impact_s) - LEAST_APART_S
    quiet = t <= max(start + 0.15, min(impact_s - longest * 0.8, latest))
    rest = float(np.median(share[quiet])) if quiet.any() else float(share[0])
    away = np.abs(share - rest)
    farthest = int(np.argmax(away))
    limit = max(timing.first_move_pct, 4 * recorded.noise_pct)
    if away[farthest] < timing.shows_from * limit:
        usual = float(np.clip(impact_s - timing.usual_s, first, impact_s - shortest))
        return Event(min(usual, latest), "estimated", timing.usual_sd_s)
    still = np.flatnonzero(away[: farthest + 1] <= limit)
    if not len(still) or t[still[-1]] <= first + 0.02:
        return Event(min(first, latest), "estimated", 0.15)
    moved = t[still[-1]] - _ran_up(
        away[: farthest + 1], int(still[-1]), limit, timing.longest_run_up_s
    )
    moment = float(np.clip(moved, max(first, impact_s - longest), impact_s - shortest))
    return Event(min(moment, latest), "estimated", timing.first_move_sd_s)


def _ran_up(away: FloatArray, still: int, limit: float, longest_s: float) -> float:
    """How long before it was seen the move began: as long as it took to go as far again."""
    twice = np.flatnonzero(away[still:] >= 2 * limit)
    return min(longest_s, float(twice[0]) * STEP_S) if len(twice) else 0.0


def _top(
    recorded: Recorded,
    address: Event,
    impact: Event,
    named: Mapping[str, Event],
    timing: Timing,
) -> Event:
    """By the tempo, drawn toward the dip of the vertical force where there is one."""
    shortest, longest = timing.downswing_s
    down = (impact.t_s - address.t_s) / (1 + timing.tempo)
    guesses = [(impact.t_s - down, timing.tempo_sd_s + address.sd_s / (1 + timing.tempo))]
    dip = _dip(recorded, impact.t_s - longest, impact.t_s - shortest / 2)
    if dip is not None:
        guesses.append((dip, timing.dip_sd_s))
    weights = [1 / sd**2 for _, sd in guesses]
    at = sum(w * t for w, (t, _) in zip(weights, guesses, strict=True)) / sum(weights)
    return Event(
        float(np.clip(at, impact.t_s - longest, impact.t_s - shortest)),
        "estimated",
        float(sum(weights) ** -0.5),
    )


def _dip(recorded: Recorded, start_s: float, end_s: float) -> float | None:
    """When the vertical force was least, if it dipped at all."""
    force = recorded.vertical_pct_bw
    if force is None:
        return None
    there = recorded.between(start_s, end_s)
    least = int(np.argmin(force[there]))
    inside = 0 < least < (there.stop - there.start - 1)
    return float(recorded.t_s[there][least]) if inside and force[there][least] < 96.0 else None
