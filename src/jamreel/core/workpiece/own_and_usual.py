"""What a maker's own hand changes about a piece: margins, the former, minutes."""

from collections.abc import Iterator, Sequence

from jamreel.core.bench.steps import Step
from jamreel.core.cutting.cuts import Cut
from jamreel.core.forming.springback import former_diameter
from jamreel.core.forming.tools import Former
from jamreel.core.hand.hand import NEW_HAND, Hand
from jamreel.core.result import OwnAndUsual
from jamreel.core.words import say
from jamreel.core.workpiece.job import Job
from jamreel.core.workpiece.straight import by_record

# So many wires are told apart; of a piece there are seldom more kinds.
MOST_WIRES = 12


def paced(steps: Sequence[Step], hand: Hand) -> tuple[Step, ...]:
    """Return steps with the minutes that they take in a hand.

    Args:
        steps: with usual minutes.
        hand: what is known of the maker.

    Source: ``hand.hand.Hand.pace_of``.
    """
    return tuple(_paced(one, hand.pace_of(one.work)[0]) for one in steps)


def _paced(one: Step, pace: float) -> Step:
    return one if pace == 1.0 else one.model_copy(update={"minutes": one.minutes * pace})


def own_and_usual(
    job: Job, cuts: Sequence[Cut], formers: Sequence[Former], steps: Sequence[Step]
) -> Iterator[OwnAndUsual]:
    """Yield what the maker's hand changes, whether the piece goes by it or not.

    Args:
        job: what the maker decided.
        cuts: of the piece.
        formers: that its body is bent on.
        steps: with usual minutes.

    Source: each figure by its own rule, with the hand and without it.
    """
    hand = job.shop.hand
    if job.cutting.school == "record":
        wires = [cut for cut in cuts if cut.techniques and cut.alike == cut.id]
        for cut in wires[:MOST_WIRES]:
            own, records = by_record(cut.techniques, cut.stock, hand)
            usual, _ = by_record(cut.techniques, cut.stock, NEW_HAND)
            net = cut.length_mm - sum(n.value_mm for n in cut.lines if n.id == "record")
            yield OwnAndUsual(
                id=f"cut/{cut.id}",
                label=cut.label,
                own=net + own,
                usual=net + usual,
                unit="mm",
                records=records,
            )
    yield from _former(job, formers)
    pace = [(one.minutes, *hand.pace_of(one.work)) for one in steps]
    records = sum({one.work: hand.pace_of(one.work)[1] for one in steps}.values())
    if records:
        yield OwnAndUsual(
            id="minutes",
            label=say("own_and_usual.minutes"),
            own=sum(minutes * each for minutes, each, _ in pace),
            usual=sum(minutes for minutes, _, _ in pace),
            unit="min",
            records=records,
        )


def _former(job: Job, formers: Sequence[Former]) -> Iterator[OwnAndUsual]:
    """Yield the former by the reel's own yield and by the metal's usual one."""
    key = job.wires.body.key
    measured = next((one for one in job.shop.measured if one.stock == key), None)
    if measured is None or not formers or job.wire.yield_mpa:
        return
    target = formers[0].target_mm
    both = [job.body_by(hand).law for hand in ("own", "usual")]
    shape = job.wires.body.shape
    own, usual = (former_diameter(target, shape, law, job.kept) for law in both)
    yield OwnAndUsual(
        id="former",
        label=say("own_and_usual.former"),
        own=own,
        usual=usual,
        unit="mm",
        records=measured.records,
    )
