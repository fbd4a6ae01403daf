"""A program that is killed while it writes has lost nothing that it said was kept.

Two hundred moments: `python -m bench.killed`.
"""

from bench.killed import killed


def test_nothing_acknowledged_is_lost_to_a_kill() -> None:
    found = list(killed(times=6, seed=7))
    assert sum(acknowledged for acknowledged, _, _ in found) > 20
    assert [missing for _, missing, _ in found] == [0] * 6
    assert {sound for _, _, sound in found} == {"ok"}
