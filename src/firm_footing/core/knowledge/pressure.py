"""How is a pressure trace read, and what counts as a sign in it?"""

from typing import Literal

from pydantic import Field, model_validator

from firm_footing.core.knowledge.soft_threshold import SoftThreshold
from firm_footing.core.knowledge.vocabulary import Answer, Entry, Limit

SwingEvent = Literal[
    "address",
    "shaft_level_back",
    "lead_arm_level_back",
    "top",
    "lead_arm_level_down",
    "shaft_level_down",
    "impact",
    "finish",
]
SWING_EVENTS: tuple[SwingEvent, ...] = (
    "address", "shaft_level_back", "lead_arm_level_back", "top", "lead_arm_level_down",
    "shaft_level_down", "impact", "finish",
)  # fmt: skip
"""In their order in time."""

Ranges = dict[SwingEvent, tuple[float, float]]
"""Event to the low and high end of the lead share, per cent."""


class RecordingNumbers(Entry):
    """What samples can be read, and how they are smoothed.

    window_s : width of the moving mean
    gap_s : a hole longer than this is said
    least_noise_pct : of a step of the lead share, however quiet the mat
    """

    slowest_hz: float = Field(gt=0)
    fastest_hz: float = Field(gt=0)
    least_samples: int = Field(ge=10)
    least_seconds: float = Field(gt=0)
    window_s: float = Field(gt=0)
    gap_s: float = Field(gt=0)
    least_noise_pct: float = Field(gt=0)


class Timing(Entry):
    """Where events lie that nobody named.

    tempo : backswing's time over the downswing's
    downswing_s : shortest and longest
    swing_s : from the first move to impact, shortest and longest
    usual_s, usual_sd_s : the same, as it usually is
    arms_level_through_s, finish_after_s : after impact
    between : part of the way from the event before to the one after, for those without a mark
    first_move_pct : the share has left its quiet place by so much
    press_s : how long before the first move a press forward is looked for
    given_sd_s, assumed_sd_s, impact_sd_s : doubt of a moment named by film or by hand, of impact
        where devices put zero, and of impact where it has to be found from the shift
    shows_from : a move of so many times `first_move_pct` shows when it began
    longest_run_up_s : a move that is this slow to show began no earlier
    """

    tempo: float = Field(gt=0)
    tempo_sd_s: float = Field(gt=0)
    dip_sd_s: float = Field(gt=0)
    downswing_s: tuple[float, float]
    swing_s: tuple[float, float]
    usual_s: float = Field(gt=0)
    usual_sd_s: float = Field(gt=0)
    arms_level_through_s: float = Field(gt=0)
    finish_after_s: float = Field(gt=0)
    shaft_level_back: float = Field(gt=0, lt=1)
    lead_arm_level_back: float = Field(gt=0, lt=1)
    lead_arm_level_down: float = Field(gt=0, lt=1)
    shaft_level_down: float = Field(gt=0, lt=1)
    between_sd_share: float = Field(gt=0)
    first_move_pct: float = Field(gt=0)
    first_move_sd_s: float = Field(gt=0)
    press_s: float = Field(gt=0)
    given_sd_s: float = Field(gt=0)
    assumed_sd_s: float = Field(gt=0)
    impact_sd_s: float = Field(gt=0)
    shows_from: float = Field(ge=1)
    longest_run_up_s: float = Field(gt=0)


class MeasureLimits(Entry):
    """From where on something is measured at all.

    foot_on_ground_pct : a foot with less than this share carries nothing: its toe share is noise
    heel_up_pct : so much of a foot's load on its toes: the heel is in the air
    started_pct : the shift has started once the share has risen this far, noise apart
    loop_least_s, loop_least_pct : the way of the centre crosses itself this long after, and around
        so much along and across; less is a foot at rest
    """

    foot_on_ground_pct: float = Field(gt=0, lt=100)
    heel_up_pct: float = Field(gt=0, lt=100)
    started_pct: float = Field(gt=0)
    loop_least_s: float = Field(gt=0)
    loop_least_pct: float = Field(gt=0)


class SignLimits(Entry):
    """From where on a sign is one; shares in per cent of both feet, times in seconds.

    shift_after_top_s : by pressure school, how long after the top the shift may start
    weak_under_pct : below the corridor's low end at impact
    rush_above_pct : above its high end with the lead arm level coming down
    rush_before_pct : lead share before that, whatever the corridor, unless a school stays there
    toe_back_pct, heel_back_pct, heel_address_pct : toe share within a foot; the last two at most
    eight_heel_pct, eight_toe_pct : toe share of the trail foot, first at most, then at least
    heel_back_counts : by heel-and-toe school, whether a deep trail heel is a fault
    order_s : how long a peak may come after the one that should follow it
    one_foot_share : what the toes of one foot alone say of both
    weak_share : what being under the corridor alone says of too much on the trail foot
    gap_sd_pct : doubt about a share within a gap of the recording
    swapped_from_pct : so far from its corridor a trace is tried with the feet swapped
    sound_path_deg, sound_low_point_cm : beyond both, contact is sound and falling back a style
    """

    shift_after_top_s: dict[str, SoftThreshold]
    corridor_sd_pct: float = Field(gt=0)
    never_left_impact_pct: SoftThreshold
    never_left_peak_pct: SoftThreshold
    half_at_impact_pct: SoftThreshold
    weak_under_pct: SoftThreshold
    rush_above_pct: SoftThreshold
    rush_before_pct: SoftThreshold
    retreat_pct: SoftThreshold
    reversed_rise_pct: SoftThreshold
    reversed_fall_pct: SoftThreshold
    toe_pct: SoftThreshold
    toe_load_pct: float = Field(gt=0, lt=100)
    toe_back_pct: SoftThreshold
    heel_back_pct: SoftThreshold
    heel_address_pct: SoftThreshold
    eight_heel_pct: SoftThreshold
    eight_toe_pct: SoftThreshold
    heel_back_counts: dict[str, Literal["always", "with_toes_down", "never"]]
    early_jump_s: SoftThreshold
    messy_ratio: SoftThreshold
    order_s: SoftThreshold
    one_foot_share: float = Field(gt=0, lt=1)
    weak_share: float = Field(gt=0, lt=1)
    gap_sd_pct: float = Field(gt=0)
    swapped_from_pct: float = Field(gt=0)
    reverse_style_below_pct: float = Field(gt=0, lt=100)
    sound_path_deg: float
    sound_low_point_cm: float


class FeetPlane(Entry):
    """Feet as the way of the centre of pressure is measured on them, centimetres."""

    between_feet_cm: float = Field(gt=0)
    heel_to_toe_cm: float = Field(gt=0)
    least_distance_cm: float = Field(gt=0)


class TraceNumbers(Entry):
    """All of `traces.yaml`.

    told : what tells pressure, weight and force apart, where a student meets a trace
    """

    source: str
    told: str
    recording: RecordingNumbers
    timing: Timing
    measured: MeasureLimits
    signs: SignLimits
    plane: FeetPlane


class Corridors(Entry):
    """Lead share in % that each pressure school calls sound: school -> event -> (low, high).

    drills : the same for a drill that changes it on purpose; a school's name, or its own ranges
    """

    source: str
    events: tuple[SwingEvent, ...]
    lead_pct: dict[str, Ranges]
    drills: dict[str, str | Ranges] = Field(default_factory=dict)

    @model_validator(mode="after")
    def _ordered_and_complete(self) -> "Corridors":
        own = {name: r for name, r in self.drills.items() if not isinstance(r, str)}
        for name, by_event in {**self.lead_pct, **own}.items():
            if set(by_event) != set(self.events):
                raise ValueError(f"{name}: events differ from the list above")
            for event, (low, high) in by_event.items():
                if not 0 <= low < high <= 100:
                    raise ValueError(f"{name}.{event}: wants 0 <= low < high <= 100")
        for name, school in self.drills.items():
            if isinstance(school, str) and school not in self.lead_pct:
                raise ValueError(f"{name}: no corridor is called '{school}'")
        return self

    def ranges(self, school: str, drill: str | None = None) -> tuple[str, Ranges]:
        """The corridor in force and its ranges: the drill's, else the school's."""
        of_drill = self.drills.get(drill) if drill else None
        if of_drill is None:
            return school, self.lead_pct[school]
        if isinstance(of_drill, str):
            return of_drill, self.lead_pct[of_drill]
        return school, of_drill


class Sign(Entry):
    """A sign in a pressure trace and the checks it answers."""

    id: str
    name: str
    sentence: str
    answers: dict[str, str]
    only_if: dict[str, str] = Field(default_factory=dict)
    source: str


class FeelAsk(Entry):
    """What to ask, and the check it answers: 'yes' as the question is put."""

    check: str
    question: str


class FeltOption(Entry):
    """One thing a student may say, and what that answers, check by check."""

    say: str
    answers: dict[str, Answer] = Field(min_length=1)


class FeltQuestion(Entry):
    """What a student can say of a swing before they are shown what it was."""

    id: str
    question: str
    options: tuple[FeltOption, ...] = Field(min_length=2)
    source: str


class FeelTest(Entry):
    """A way to feel pressure where there is no mat."""

    id: str
    name: str
    equipment: tuple[str, ...]
    how: tuple[str, ...] = Field(min_length=1)
    asks: tuple[FeelAsk, ...] = Field(min_length=1)
    limits: tuple[Limit, ...] = ()
    source: str
