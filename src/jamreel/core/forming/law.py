"""How a metal answers to strain: springy up to its yield, then it gives, and perhaps hardens."""

import math
from dataclasses import dataclass

import numpy as np
import numpy.typing as npt

Array = npt.NDArray[np.float64]
# Yields of wire as bought lie so far about the tabled one; from memory, no source.
YIELD_SPREAD = 0.1


@dataclass(frozen=True)
class Law:
    """Young's modulus and yield [MPa]; with ``k`` [MPa] and ``n`` it hardens beyond its yield.

        sigma = E eps up to the yield, then K (eps_0 + eps - sigma_y / E)^n, K eps_0^n = sigma_y

    ``eps_0`` is what the wire was worked before, so that harder wire of the same metal goes on
    along the same curve. Without ``k`` and ``n`` it holds its yield (perfectly plastic).

    Source: Ludwik and Swift's curves; published, any text on plasticity.
    """

    youngs: float
    yield_mpa: float
    k: float | None = None
    n: float | None = None

    @property
    def hardens(self) -> bool:
        """Whether it does."""
        return self.k is not None and self.n is not None

    @property
    def worked(self) -> float:
        """Strain eps_0 that it was worked before, 0 where it does not harden."""
        if self.k is None or self.n is None:
            return 0.0
        return float((self.yield_mpa / self.k) ** (1 / self.n))

    @property
    def gives_at(self) -> float:
        """Strain at which it yields."""
        return self.yield_mpa / self.youngs

    def stress(self, strain: float) -> float:
        """Return the stress [MPa] at a strain, not negative."""
        if strain <= self.gives_at:
            return self.youngs * strain
        return self.yield_mpa + float(self.beyond(np.array([strain]))[0])

    def beyond(self, strain: Array) -> Array:
        """Return by how much the stress passes the yield [MPa] at strains, 0 up to it."""
        if self.k is None or self.n is None:
            return np.zeros_like(strain)
        past = np.maximum(strain - self.gives_at, 0.0)
        return np.asarray(self.k * (self.worked + past) ** self.n - self.yield_mpa, np.float64)

    def after(self, strain: float) -> float:
        """Return the yield [MPa] that is left behind by a true strain through and through.

        Args:
            strain: of rolling, drawing, hammering; not negative.

        Returns:
            K (eps_0 + eps)^n; the yield as it was where it does not harden.

        Example:
            >>> round(Law(117000.0, 70.0, 315.0, 0.54).after(0.5))
            231

        Source: see the class.
        """
        if self.k is None or self.n is None:
            return self.yield_mpa
        return float(self.k * (self.worked + strain) ** self.n)

    @property
    def even_stretch(self) -> float:
        """True strain that it may be drawn out by before it necks: n less what it was worked.

        Source: Considere's criterion, d sigma / d eps = sigma at eps = n; published.
        """
        return math.inf if self.n is None else max(0.0, self.n - self.worked)
