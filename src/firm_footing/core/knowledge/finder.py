"""By what is a swing told from everything else that moves in a film?"""

from typing import Annotated

from pydantic import Field, model_validator

from firm_footing.core.knowledge.vocabulary import Entry

Seconds = Annotated[float, Field(gt=0)]
Part = Annotated[float, Field(gt=0, lt=1)]
SdOfLog = Annotated[float, Field(gt=0)]
Nats = Annotated[float, Field(ge=0)]


class SwingSpread(Entry):
    """How swings differ: standard deviations of the logarithms of three times, and of stillness.

    moving_at_top : how much still moves at the top, as a part of the swing's largest change
    """

    down: SdOfLog
    back: SdOfLog
    tempo: SdOfLog
    moving_at_top: Part


class EventDoubt(Entry):
    """How far off an event may be, s; one standard deviation.

    address_each_long_s : more of address, for each second of a backswing beyond `long_back_s`
    never_calm : of address where it never was calm
    top_moving : of the top where everything moves at it
    """

    address: Seconds
    address_each_long_s: float = Field(ge=0)
    never_calm: Seconds
    top_moving: Seconds
    impact: Seconds
    arms_level_through: Seconds
    finish: Seconds


class FinderNumbers(Entry):
    """What the finder of events goes by; times of the swing, not of a file that plays slower.

    least_frames : pictures; fewer are no film of a swing
    quiet_part : of the largest change in a film: less is no move of the player
    calm_part, calm_s : of the swing's own largest change: less, for so long, is an address even
        where trees move; calm_within_s : so long before the top it counts
    usual_back_s : of a backswing that began out of a move
    smooth_s, peak_s : over which moves, and bursts of them, are evened out
    least_peak : part of the largest change in the film that a burst has at least
    lowest_s : the club is lowest so near before and after most moves, which may be early
    as_low : of the picture's height: what lies no higher than this above the lowest is as low
    top_before_s : of impact, at least and at most
    least_back_s : shortest backswing
    long_back_s : a longer one may begin with what somebody else did
    down_s : from top to impact, usually
    largest_nats : how much the largest move is likelier the swing, for each factor of e
    restless_nats : how much less likely one swings who was not calm before
    slower : how many times slower than life a file may play; slower_nats : how much less likely
    like_a_swing : a burst with a lower score is none
    clearly_nats : how much better the best burst has to be than another one
    same_s : bursts so near before and after are the same swing
    around_s : how far from the picture that was shown impact is looked for
    """

    least_frames: int = Field(ge=2)
    quiet_part: Part
    calm_part: Part
    calm_s: Seconds
    calm_within_s: Seconds
    usual_back_s: Seconds
    smooth_s: Seconds
    peak_s: Seconds
    least_peak: Part
    lowest_s: tuple[Seconds, Seconds]
    as_low: Part
    top_before_s: tuple[Seconds, Seconds]
    least_back_s: Seconds
    long_back_s: Seconds
    down_s: Seconds
    spread: SwingSpread
    largest_nats: Nats
    restless_nats: Nats
    slower: tuple[Annotated[int, Field(ge=1)], ...]
    slower_nats: Nats
    like_a_swing: float
    clearly_nats: Nats
    same_s: tuple[Seconds, Seconds]
    around_s: Seconds
    doubt_s: EventDoubt

    @model_validator(mode="after")
    def _in_order(self) -> "FinderNumbers":
        least, most = self.top_before_s
        if least >= most:
            raise ValueError("top_before_s: wants at least < at most")
        if self.slower[:1] != (1,) or list(self.slower) != sorted(set(self.slower)):
            raise ValueError("slower: wants 1, and then what plays slower, in order")
        return self
