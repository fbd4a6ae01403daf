"""How is what the balls show given to the outside?"""

import numpy as np

from firm_footing.api.balls.schemas import (
    DriftOut,
    GroupOut,
    LostOut,
    ReadBall,
    ReadBlock,
    WantedOut,
)
from firm_footing.api.conclusions.schemas import Spread
from firm_footing.core.frame.arrays import FloatArray
from firm_footing.core.knowledge import DIMENSIONS, Knowledge
from firm_footing.core.patterns import Estimate
from firm_footing.core.patterns.block import BallRead, BlockRead, read_block
from firm_footing.core.physics.forward import PARTS
from firm_footing.core.text.missed import missed_words
from firm_footing.store.cases import case_of
from firm_footing.store.lesson_content import LessonContent


def read_content(content: LessonContent, known: Knowledge) -> list[ReadBlock]:
    """What the balls of a lesson show, block by block; a block without a ball is left out."""
    case = case_of(content)
    return [
        block_view(
            row.id,
            [shot.id for shot in content.shots[row.id]],
            read_block(block, known, case.handicap),
        )
        for row, block in zip(content.blocks, case.blocks, strict=True)
        if block.shots
    ]


def block_view(block_id: str, shot_ids: list[str], read: BlockRead) -> ReadBlock:
    """A block with its balls."""
    pattern = read.pattern
    known: dict[str, Estimate | None] = {
        "start_deg": pattern.start_deg,
        "curve_deg": pattern.curve_deg,
        **{name: getattr(pattern, name) for name in DIMENSIONS},
        "face_deg": read.face_deg,
        "attack_deg": read.attack_deg,
    }
    return ReadBlock(
        block_id=block_id,
        expected_carry_m=read.expected.carry_m,
        expected_source=read.expected.source,
        shape=pattern.shape,
        two_way=bool(pattern.two_way),
        missed=list(missed_words(pattern)),
        strike_in_words=pattern.strike_in_words,
        carry_lost_pct=None if pattern.carry_lost_pct is None else pattern.carry_lost_pct.value,
        delivery={k: Spread(value=e.value, se=e.se) for k, e in known.items() if e is not None},
        scatter=dict(zip(PARTS, read.scatter.tolist(), strict=True)),
        balls=[_ball(s, b) for s, b in zip(shot_ids, read.balls, strict=True)],
        groups=[GroupOut.model_validate(g) for g in read.groups],
        drifts=[DriftOut.model_validate(d) for d in read.drifts],
        lost=LostOut.model_validate(read.lost),
        wanted=[WantedOut.model_validate(w) for w in read.wanted],
    )


def _ball(shot_id: str, ball: BallRead) -> ReadBall:
    spreads = dict(
        zip(PARTS, zip(ball.delivery.tolist(), ball.sd.tolist(), strict=True), strict=True)
    )
    spreads["face_deg"] = (ball.face_deg, ball.face_sd)
    spreads["attack_deg"] = (ball.attack_deg, ball.attack_sd)
    # made in one piece: a lesson's balls hold some thousand numbers, each answer tells them all
    return ReadBall.model_validate(
        {
            "shot_id": shot_id,
            "delivery": {name: {"value": value, "se": sd} for name, (value, sd) in spreads.items()},
            "start_deg": ball.start_deg,
            "curve_deg": ball.curve_deg,
            "carry_m": ball.carry_m,
            "apex_m": ball.apex_m,
            "track": _shortened(ball.track),
            "wild": ball.wild,
            "lost": LostOut.model_validate(ball.lost),
        }
    )


def _shortened(track: FloatArray) -> list[list[float]]:
    """(points, 3) to the decimetre, and sideways to the centimetre."""
    forward_up, aside = np.round(track[:, :2], 1), np.round(track[:, 2:], 2)
    rows: list[list[float]] = np.concatenate((forward_up, aside), axis=1).tolist()
    return rows
