"""Work that a search may cost, counted rather than timed: a busy machine finds the same plan."""

from __future__ import annotations

from typing import TYPE_CHECKING

from jamreel.core.late import late

if TYPE_CHECKING:
    from ortools.sat.python import cp_model
else:
    cp_model = late("ortools.sat.python.cp_model")


# What a machine of the common sort does in a second: cells of a table filled by NumPy, cells of a
# matrix handed to the simplex method. Measured on two cores of 2026; they only scale the budget.
CELLS, MATRIX = 1.4e8, 1.4e6
# Putting a model together costs so much; a unit of the solver's own work takes so long.
MODEL, UNIT = 0.018, 2.6


class Work:
    """Work to be spent, in seconds of a machine of the common sort.

    Where models differ too much for that, the solver stops after ``wall`` seconds of its own clock
    at the latest: then a slow machine may find another plan than a quick one.
    """

    def __init__(self, limit: float, wall: float | None = None) -> None:
        self.left = limit
        self.wall = wall

    def spend(self, work: float) -> None:
        """Take some work off what is left."""
        self.left -= work

    def share(self, part: float) -> Work:
        """Return a part of what is left, to be given back with ``back``."""
        given = Work(max(0.0, self.left * part))
        self.left -= given.left
        return given

    def back(self, given: Work) -> None:
        """Take back what is left of a part."""
        self.left += given.left

    def solve(self, model: cp_model.CpModel, most: float) -> cp_model.CpSolver | None:
        """Return a solver with the best answer found, None where none was.

        Args:
            model: what to solve.
            most: work to spend on it [s of a common machine], no more than is left.
        """
        solver = cp_model.CpSolver()
        solver.parameters.max_deterministic_time = max(min(most, self.left), 0.01) / UNIT
        # One worker: several would race, and the first one home differs from day to day.
        solver.parameters.num_workers = 1
        solver.parameters.random_seed = 1
        if self.wall is not None:
            solver.parameters.max_time_in_seconds = max(self.wall, 0.05)
        status = solver.solve(model)
        if self.wall is not None:
            self.wall -= solver.wall_time
        self.spend(MODEL + UNIT * solver.deterministic_time)
        return solver if status in (cp_model.OPTIMAL, cp_model.FEASIBLE) else None
