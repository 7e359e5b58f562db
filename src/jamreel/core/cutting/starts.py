"""Plans that come at once: first fit, as hands lay it out, and one that fills piece by piece."""

from functools import partial

import numpy as np

from jamreel.core.cutting.fullest import Floats, fullest
from jamreel.core.cutting.problem import WEIGHT, Plan, Problem, is_reel


def first_fit(problem: Problem) -> Plan:
    """Return first fit's plan: longest first, each on the first piece that has room for it."""
    plan = [[0] * len(problem.lengths) for _ in problem.racks]
    left = list(problem.rooms)
    for kind, (takes, count) in enumerate(zip(problem.takes, problem.counts, strict=True)):
        for _ in range(count):
            at = next((b for b, room in enumerate(left) if room >= takes), None)
            if at is not None:
                left[at] -= takes
                plan[at][kind] += 1
    return plan


def filled(problem: Problem) -> Plan:
    """Return a plan that fills piece by piece, offcuts first, each as well as the cuts allow."""
    takes = problem.takes
    left = list(problem.counts)
    plan = [[0] * len(takes) for _ in problem.racks]
    reels = sum(r for rack, r in zip(problem.racks, problem.rooms, strict=True) if is_reel(rack))
    elsewhere = WEIGHT["reel"] if reels >= problem.used(left) else problem.leaving_out
    for b, rack in enumerate(problem.racks):
        if is_reel(rack):
            # Of a reel nothing is scrap: it takes what is left, the longest first.
            room = problem.rooms[b]
            for kind, take in enumerate(takes):
                plan[b][kind] = min(left[kind], room // take)
                room -= plan[b][kind] * take
        else:
            worth = partial(_worth, problem, b, elsewhere)
            plan[b] = list(fullest(takes, left, problem.rooms[b], worth) or plan[b])
        left = [have - taken for have, taken in zip(left, plan[b], strict=True)]
    return plan


def _worth(problem: Problem, b: int, elsewhere: int, used: Floats) -> Floats:
    """Return what it saves to use so much of a piece, rather than wire that weighs more."""
    rack, room = problem.racks[b], problem.rooms[b]
    committed = np.where(room - used < problem.keep, room, used)
    opened = np.where(used > 0, float(problem.opening(b)), 0.0)
    saves: Floats = elsewhere * used - WEIGHT[rack.kind] * committed - opened
    return saves
