"""How is what follows from a lesson shown to the outside?"""

from functools import lru_cache

from firm_footing.api.conclusions.schemas import (
    BallWay,
    BetweenOut,
    DecisionStatusOut,
    DiagnosisOut,
    MeasuredOut,
    NextCheckOut,
    Spread,
    TrialResultOut,
    WithheldDrill,
)
from firm_footing.core.case import Block as CaseBlock
from firm_footing.core.case import Case
from firm_footing.core.coaching import Withheld, situation_of, withheld_for
from firm_footing.core.diagnosis.between import Between
from firm_footing.core.diagnosis.diagnosis import Diagnosis
from firm_footing.core.diagnosis.ranking import ranking_of
from firm_footing.core.estimation.expected import expected_of
from firm_footing.core.knowledge import Knowledge
from firm_footing.core.patterns import Estimate
from firm_footing.core.text.missed import missed_words
from firm_footing.core.text.schools import schools_sentence
from firm_footing.core.text.words import probability_word


def diagnosis_view(diagnosis: Diagnosis, case: Case, knowledge: Knowledge) -> DiagnosisOut:
    """A diagnosis with words, spreads and the drills kept back."""
    probabilities = {c.id: c.probability for c in diagnosis.causes}
    pattern = diagnosis.pattern
    path = pattern.path_deg.value if pattern.path_deg else None
    here = situation_of(case, probabilities, path)
    kept_back = withheld_for(diagnosis.causes[0].id, knowledge, here)
    known = {name: getattr(pattern, name) for name in type(pattern).__dataclass_fields__}
    return DiagnosisOut(
        ranking=ranking_of(diagnosis, knowledge),
        decision_status=DecisionStatusOut.model_validate(diagnosis.decision_status),
        outside_word=probability_word(diagnosis.outside_feet, knowledge.numbers),
        spreads={
            name: Spread(value=e.value, se=e.se)
            for name, e in known.items()
            if isinstance(e, Estimate)
        },
        missed=list(missed_words(pattern)),
        strike_in_words=pattern.strike_in_words,
        ball_ways={
            c.id: BallWay(start_deg=c.ball_way_deg[0], curve_deg=c.ball_way_deg[1])
            for c in diagnosis.causes
        },
        schools_say=schools_sentence(diagnosis.start_elsewhere, knowledge),
        withheld=[WithheldDrill(id=w.drill, reason=why_withheld(w, knowledge)) for w in kept_back],
        contradictions=list(diagnosis.contradictions),
        measured=[MeasuredOut.model_validate(m) for m in diagnosis.measured],
        trial_results=[TrialResultOut.model_validate(v) for v in diagnosis.trial_results],
        usual_carry_m=usual_carries(knowledge, case.handicap),
        knowledge_version=knowledge.version,
    )


@lru_cache(maxsize=64)
def usual_carries(knowledge: Knowledge, handicap: float | None) -> dict[str, float]:
    """Club to the carry that is usual at this handicap, metres."""
    return {
        club.id: expected_of(CaseBlock(club=club.id), knowledge, handicap).carry_m
        for club in knowledge.clubs
    }


def between_view(found: Between) -> BetweenOut:
    """What separates two causes, for a screen."""
    return BetweenOut(
        one=found.one,
        other=found.other,
        probability=found.probability,
        evidence=[{"evidence": w.evidence, "bits": w.bits, "text": w.text} for w in found.evidence],
        checks=[NextCheckOut.model_validate(look) for look in found.checks],
    )


def why_withheld(withheld: Withheld, knowledge: Knowledge) -> str:
    """Why a drill is kept back, in words."""
    names = {limit.id: limit.name.lower() for limit in knowledge.cautions.limits}
    reasons = []
    if withheld.limits:
        reasons.append(", ".join(names[limit] for limit in withheld.limits) + " flagged")
    reasons += [f"would make “{knowledge.cause[c].name.lower()}” worse" for c in withheld.worse_for]
    return "; ".join(reasons)
