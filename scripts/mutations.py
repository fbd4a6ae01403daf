"""Take terms away one by one and see whether a test misses them: `scripts/mutations.py`.

Each mutation is made in a copy of the project and the tests named beside it are run there; what
survives is printed, and kept in docs/RELIABILITY.md. Some ten minutes.
"""

import argparse
import os
import shutil
import subprocess
import sys
import tempfile
from pathlib import Path
from typing import NamedTuple

ROOT = Path(__file__).parents[1]
CORE = "src/firm_footing/core"
WEB = "web"


class Mutation(NamedTuple):
    """What is changed into what in one file, and the tests that should notice."""

    name: str
    file: str
    old: str
    new: str
    tests: tuple[str, ...]


ORACLES = ("tests/core/test_against_enumeration.py", "tests/core/test_against_scipy.py")
TERMS = ("tests/core/test_every_term.py",)
EYE = ("tests/core/test_eye.py",)

MUTATIONS = (
    Mutation("saturation removed", f"{CORE}/inference/answers.py",
             "return min(max(log_ratio, -most), most)", "return log_ratio",
             ("tests/core/test_answers.py",)),
    Mutation("what a constraint does to everyone dropped", f"{CORE}/inference/trial_likelihood.py",
             "+ left + everyone[:, None], space)", "+ left, space)", ORACLES),
    Mutation("those who show more in strike dropped", f"{CORE}/inference/delivery_density.py",
             "return mixed(self._log_plain, self._log_beyond, self.tail.share)",
             "return self._log_plain.astype(np.float64)", ORACLES),
    Mutation("what is left over by those who show more in strike dropped",
             f"{CORE}/inference/delivery_density.py",
             "out -= self.beyond * self.tail.more * self.tail.across[:, self.form_of]",
             "out -= 0 * self.beyond * self.tail.across[:, self.form_of]", ORACLES),
    Mutation("one view of a disputed link left out of the prior",
             f"{CORE}/inference/prior.py", "_joint(space, schools, slice(None)).sum(axis=0)",
             "2 * _joint(space, schools, slice(None))[0]", ORACLES),
    Mutation("a disputed start not shared out", f"{CORE}/inference/start.py",
             "share * _starts_in_view(", "0.5 * _starts_in_view(", ORACLES),
    Mutation("the spread of what it does to everyone dropped",
             f"{CORE}/inference/trial_likelihood.py",
             "return row, (knowledge.numbers.trial.everyone_spread * row) ** 2",
             "return row, 0 * row", ORACLES),
    Mutation("spread of the severity in what would change dropped",
             f"{CORE}/conclusions/what_if.py", "* (space.unit_effects.T * gone_share)",
             "* 0 * (space.unit_effects.T * gone_share)", TERMS),
    Mutation("a student's own speed taken for what could be expected",
             f"{CORE}/estimation/linear.py", "out[here, :, column] = slopes[here, :, SPEED]",
             "out[here, :, column] = 0.0", ("tests/core/test_reading_errors.py",)),
    Mutation("a ball of which no heel or toe was said taken for any",
             f"{CORE}/estimation/readings.py", "    on = numbers.not_off_the_face\n",
             "    return made\n    on = numbers.not_off_the_face\n",
             ("tests/core/test_reading_errors.py",)),
    Mutation("every ball read with slopes of its own", f"{CORE}/estimation/linear.py",
             "np.broadcast_to(alike, slopes.shape)", "slopes",
             ("tests/core/test_reading_errors.py",)),
    Mutation("an interval without what bends leave over", f"{CORE}/estimation/inverse.py",
             "self.noted.limit_variance[rows, columns] + self.left_over[rows, columns]",
             "self.noted.limit_variance[rows, columns]", TERMS),
    Mutation("deviation for variance in the top", f"{CORE}/pressure/events.py",
             "weights = [1 / sd**2 for _, sd in guesses]",
             "weights = [1 / sd for _, sd in guesses]", TERMS),
    Mutation("a film's doubt about the level dropped", f"{CORE}/film/uncertainty.py",
             "planes.now.level_sd * places @ A_QUARTER_TURN,", "0 * places,", TERMS),
    Mutation("a film's doubt about where the camera stood", f"{CORE}/film/uncertainty.py",
             "planes.turned.place(points.pixels, points.nearer_cm) - places,", "0 * places,",
             TERMS),
    Mutation("how large a film was shown when touched", f"{CORE}/film/plane.py",
             "math.hypot(own_px, errors.touch_px / zoom)", "own_px", TERMS),
    Mutation("where a camera is said to stand not put right", f"{CORE}/film/plane.py",
             "turned_rad=math.atan((told or 0.0) / distance) + more_turned_rad",
             "turned_rad=more_turned_rad", ("tests/core/test_film_bodies.py",)),
    Mutation("a finding that never fades", f"{CORE}/inference/history_likelihood.py",
             "fades = 0.5 ** (past.days_ago / numbers.half_life_days)", "fades = 1.0",
             ("tests/core/test_history.py",)),
    Mutation("what came back is as what was found once", f"{CORE}/inference/history_likelihood.py",
             "numbers.stays_again if came_back else numbers.stays", "numbers.stays",
             ("tests/core/test_history.py",)),
    Mutation("new causes forgotten beside old ones", f"{CORE}/inference/history_likelihood.py",
             "return math.log(ratio * stays + 1 - stays)", "return math.log(ratio * stays)",
             ("tests/core/test_history.py",)),
    Mutation("a fate is no evidence in a casebook", f"{CORE}/learning/counts.py",
             "np.exp(log_ratio_of_fate(outcome, knowledge.casebook))", "1.0",
             ("tests/core/test_learning.py",)),
    Mutation("an answer speaks for itself", f"{CORE}/learning/eye.py",
             "rest = 1 / said_of_sets(answer, space, eye)",
             "rest = np.ones(space.members.shape[0])", EYE),
    Mutation("chance moves an eye", f"{CORE}/learning/eye.py",
             "mean * max(0.0, 1 - (numbers.beyond_chance / max(z, 1e-9)) ** 2)", "mean", EYE),
    Mutation("a false yes taken for a false no", f"{CORE}/inference/answers.py",
             "min(MOST_WRONG, yes * error), min(MOST_WRONG, no * error)",
             "min(MOST_WRONG, no * error), min(MOST_WRONG, yes * error)", EYE),
    Mutation("an eye misreads an instrument", f"{CORE}/inference/answers.py",
             "in eye if source in BY_EYE else ():", "in eye:", EYE),
    Mutation("an eye misreads a tape", f"{CORE}/inference/answers.py",
             "() if reading.measured else eye", "eye", EYE),
    Mutation("an eye is no part of the next look", f"{CORE}/conclusions/next_check.py",
             "    eye = inference.case.eye\n", "    eye = ()\n", EYE),
    Mutation("an eye is taken for commoner causes", f"{CORE}/learning/eye.py",
             "out *= self._ratio(answer)", "out *= 1.0", EYE),
    Mutation("chance moves what is learned", f"{CORE}/learning/learned.py",
             "return log * beyond, tally", "return log, tally", ("tests/core/test_learning.py",)),
    Mutation("a word teaches as much as a retest", f"{CORE}/learning/learned.py",
             "of_measured + word * (of_all - of_measured)", "of_all",
             ("tests/core/test_learning.py",)),
    Mutation("where a camera in the hand looked not put right", f"{CORE}/film/uncertainty.py",
             "found.append(film.steadied(place, event))", "found.append(place)",
             ("tests/core/test_hand_held.py",)),
    Mutation("a film's doubt about where it looked", f"{CORE}/film/uncertainty.py",
             "        *_of_following(measure, points, planes.now),\n", "",
             ("tests/core/test_hand_held.py",)),
    Mutation("a film in the hand that nobody followed", f"{CORE}/film/uncertainty.py",
             'return errors.not_followed_px if film.held and event != "address" else 0.0',
             "return 0.0", ("tests/core/test_hand_held.py",)),
    Mutation("where a camera looked not mirrored", f"{CORE}/case/film.py",
             '"right": -move.right, "turned_deg": -move.turned_deg',
             '"right": move.right, "turned_deg": move.turned_deg',
             ("tests/core/test_hand_held.py",)),
    Mutation("the picture's turn left out of a hand's move", f"{WEB}/src/lesson/look/film/shake.ts",
             "const turned = Math.atan2(cross, dot)", "const turned = 0 * Math.atan2(cross, dot)",
             ("tests/shake.test.ts",)),
    Mutation("pictures held without bound", f"{WEB}/src/lesson/look/film/nearPictures.ts",
             "if (frame < this.first || frame > this.last) this.held.delete(frame)",
             "if (frame < -1) this.held.delete(frame)",
             ("tests/pictures.test.ts",)),
    Mutation("a mirrored film not noticed", f"{CORE}/film/measures.py",
             "if shows_other_hand(film, knowledge.film):", "if False:",
             ("tests/core/test_film_bodies.py",)),
    Mutation("redo of another page forgotten", "src/firm_footing/store/changes/steps.py",
             "        col(UndoEntry.made_by).is_not_distinct_from(sender_of(session).page),\n",
             "", ("tests/api/test_two_devices.py", "tests/api/test_sent_twice.py")),
    # ten of our own
    Mutation("floors before a cause is taken away", f"{CORE}/inference/intervention.py",
             "return stopped(left, space) - stopped(whole, space)", "return left - whole",
             ("tests/core/test_separating.py",)),
    Mutation("a low point read from an iron's place", f"{CORE}/estimation/shown.py",
             "from_ball_cm(parts[:, LOW_POINT], club)", "parts[:, LOW_POINT]",
             ("tests/core/test_turf.py",)),
    Mutation("the middle is not charged for in the scatter", f"{CORE}/estimation/scatter.py",
             "log -= 0.5 * np.linalg.slogdet(information + prior)[1]", "pass",
             ("tests/core/test_scatter.py",)),
    Mutation("no prior on the scatter", f"{CORE}/estimation/scatter.py",
             "log -= 0.5 * (np.log(FACTORS) / spread) ** 2", "pass",
             ("tests/core/test_scatter.py",)),
    Mutation("scatter fitted by the notes' plain values", f"{CORE}/estimation/inverse.py",
             "self._fit_scatter(self._away(mean, offset, slopes, self.value, noise2))",
             "self._fit_scatter(away)", ("tests/core/test_scatter.py",)),
    Mutation("links between causes dropped", f"{CORE}/inference/prior.py",
             "(1.0 - prior.link_strength) ** links_into(space, dropped)",
             "1.0 ** links_into(space, dropped)", ORACLES),
    Mutation("the leak of a look dropped", f"{CORE}/inference/check_likelihood.py",
             "return 1.0 - (1.0 - base) * np.exp(", "return 1.0 - np.exp(", ORACLES),
    Mutation("tails of people as of a normal curve", f"{CORE}/inference/delivery_density.py",
             "out -= (df + size) / 2 * np.log(1 + distance2 / (df * narrower))",
             "out -= distance2 / 2", ORACLES),
    Mutation("log determinant dropped", f"{CORE}/inference/delivery_density.py",
             "out: Floats = constant - 0.5 * log_det",
             "out: Floats = constant - 0.0 * log_det", ORACLES),
    Mutation("noise of the reading dropped", f"{CORE}/inference/delivery_likelihood.py",
             '"base": reading.design * person @ reading.design.T + reading.noise',
             '"base": reading.design * person @ reading.design.T + 1e-9 * reading.noise',
             ORACLES),
    Mutation("errors of a whole block dropped", f"{CORE}/inference/delivery_likelihood.py",
             "information[errors, errors] += 1 / sd**2", "information[errors, errors] += 1e9",
             ("tests/core/test_readings.py", "tests/core/test_diagnosis.py",
              "tests/core/test_seen.py", *ORACLES)),
    Mutation("no discount on looks of one group", f"{CORE}/inference/dependence.py",
             "return 1 / (1 + discount * max(0, answers - 1))", "return 1.0", ORACLES),
    Mutation("one level for every look of a retest", f"{CORE}/knowledge/coaching.py",
             "column = min(max(after, self.first_look), self.looks) - self.first_look",
             "column = 17", ("tests/core/test_retest.py",)),
    Mutation("a lost answer's write joined to a newer one", f"{WEB}/src/sync/outbox.ts",
             "older && this.unsent.has(older.name) && !older.refused", "older && !older.refused",
             ("tests/outbox.test.ts",)),
    Mutation("an undo sent without the write it means", f"{WEB}/src/sync/outbox.ts",
             "return this.state.entries.find((e) => e.write === write)?.name ?? null",
             "return null", ("tests/outbox.test.ts",)),
    Mutation("no longer wait after a failure", f"{WEB}/src/sync/outbox.ts",
             "this.inVain = failed.length > 0 ? this.inVain + 1 : 0", "this.inVain = 0",
             ("tests/outbox.test.ts",)),
    Mutation("casebook: a contradicted fate stands as if nothing spoke against it",
             f"{CORE}/learning/fates.py",
             "if 0 < sign * ratios[kind] <= left:", "if 0 < sign * ratios[kind]:",
             ("tests/core/test_fates.py",)),
    Mutation("casebook: balls count against a cause that is still there",
             f"{CORE}/learning/fates.py",
             'if retest == "rejected" and "still_there" in (trace, film):', "if False:",
             ("tests/core/test_fates.py",)),
    Mutation("casebook: what a look told leaves out what the rest makes of it",
             f"{CORE}/learning/told.py", "math.log2(float(p[at_work] @ w)) - ", "-",
             ("tests/core/test_fates.py",)),
    Mutation("casebook: what became of a decision counts for nothing",
             f"{CORE}/learning/counts.py", "np.where(had, ratio, 1.0)", "np.where(had, 1.0, 1.0)",
             ("tests/core/test_learning.py",)),
    Mutation("casebook: how common a cause is said to be is not what a ranking begins with",
             f"{CORE}/learning/learned.py",
             "_common(space, logs, lessons) for", "_common(space, np.exp(logs), lessons) for",
             ("tests/core/test_learning.py",)),
    Mutation("retest: what was real once stays so, whatever came after",
             f"{CORE}/coaching/retest.py", '"real" if held else "not_held"', '"real"',
             ("tests/core/test_retest.py",)),
    Mutation("drills: few lessons count as many", f"{CORE}/coaching/drills.py",
             "(of + worth.worked_as_if)", "of", ("tests/core/test_coaching.py",)),
    Mutation("being online again is not heard", f"{WEB}/src/sync/outbox.ts",
             "window.addEventListener('online', this.tryNow)", "", ("tests/outbox.test.ts",)),
)  # fmt: skip


def copied(folder: Path) -> Path:
    """The project as it is committed or not, without what is built."""
    listed = subprocess.run(
        ["git", "ls-files", "-co", "--exclude-standard"],
        cwd=ROOT, capture_output=True, text=True, check=True,
    ).stdout.splitlines()  # fmt: skip
    for name in listed:
        if (ROOT / name).is_file():
            (folder / name).parent.mkdir(parents=True, exist_ok=True)
            shutil.copy2(ROOT / name, folder / name)
    (folder / WEB / "node_modules").symlink_to(ROOT / WEB / "node_modules")
    shutil.copy2(ROOT / WEB / "src/api/schema.d.ts", folder / WEB / "src/api/schema.d.ts")
    return folder


def survives(mutation: Mutation, project: Path) -> bool:
    """Whether all tests named pass although it was made."""
    file = project / mutation.file
    whole = file.read_text(encoding="utf-8")
    if whole.count(mutation.old) != 1:
        raise ValueError(f"{mutation.name}: stands {whole.count(mutation.old)} times in its file")
    file.write_text(whole.replace(mutation.old, mutation.new), encoding="utf-8")
    in_web = mutation.file.startswith(f"{WEB}/")
    command = ["npx", "vitest", "run"] if in_web else [sys.executable, "-m", "pytest", "-qx"]
    try:
        done = subprocess.run(
            [*command, *mutation.tests],
            cwd=project / WEB if in_web else project,
            env={**os.environ, "PYTHONPATH": f"{project}/src", "OMP_NUM_THREADS": "1"},
            capture_output=True,
            check=False,
        )
    finally:
        file.write_text(whole, encoding="utf-8")
    return done.returncode == 0


def main() -> None:
    """Print each, and exit with one where any survives."""
    options = argparse.ArgumentParser(description=__doc__)
    options.add_argument("names", nargs="*", help="only those whose name holds one of these words")
    wanted = options.parse_args().names
    alive = 0
    with tempfile.TemporaryDirectory(prefix="mutations-") as folder:
        project = copied(Path(folder))
        for mutation in MUTATIONS:
            if wanted and not any(word in mutation.name for word in wanted):
                continue
            lives = survives(mutation, project)
            alive += lives
            print(f"{'SURVIVES' if lives else 'killed':9} {mutation.name}", flush=True)
    sys.exit(1 if alive else 0)


if __name__ == "__main__":
    main()
