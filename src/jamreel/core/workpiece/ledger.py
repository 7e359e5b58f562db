"""A ledger written line by line; totals are summed from their terms, so they can't be wrong."""

from jamreel.core.body.readings import BodyMeasure
from jamreel.core.cutting.cuts import Cut
from jamreel.core.fit.ease import Ease
from jamreel.core.values import Backing, LedgerLine
from jamreel.core.words import say

ALLOWANCES = ("trim_left", "trim_right", "margin", "sample", "record", "ratio", "handling")


class Book:
    """Collects ledger lines. ``d`` is known to every line's reason."""

    def __init__(self, d: float) -> None:
        self._d = d
        self._lines: list[LedgerLine] = []

    @property
    def lines(self) -> tuple[LedgerLine, ...]:
        """All lines so far."""
        return tuple(self._lines)

    def girth(self, girth: BodyMeasure, to: str, key: str = "") -> None:
        """Write a measure as a term of a total; its id is the site's unless a key is given."""
        how = "guessed" if girth.guessed else "measured" if girth.count > 1 else "measured_once"
        self._lines.append(
            LedgerLine(
                id=key or girth.site,
                label=say(f"ledger.{key}.label" if key else f"site.{girth.site}").capitalize(),
                value_mm=girth.value_mm,
                rule="body.readings.girth_at",
                reason=say(f"ledger.{how}", n=girth.count, pm=girth.plus_minus_mm),
                backing="from memory" if girth.guessed else "measured",
                inputs={"readings": float(girth.count), "spread_mm": girth.spread_mm},
                adds_to=to,
            )
        )

    def ease(self, ease: Ease, to: str) -> None:
        """Write an ease as a term of a total."""
        self.term(
            f"ease_{ease.school}",
            ease.value_mm,
            "fit.ease.ease_of",
            ease.backing,
            to,
            parameter=ease.parameter or 0.0,
        )

    def trims(self, cut: Cut) -> None:
        """Write a cut's trims and whatever else is added to it as terms of the cut."""
        backing: dict[str, Backing] = {"sample": "measured", "record": "measured"}
        for line in cut.lines:
            if line.id in ALLOWANCES:
                rule = (
                    "cutting.cuts.Cutting" if line.id.startswith("trim") else "cutting.cuts.extras"
                )
                self.term(line.id, line.value_mm, rule, backing.get(line.id, "chosen"), "cut")
                if line.says:
                    # What a record rests on is said with it.
                    said = {"reason": line.says, "rule": "hand.belief.whole_wire"}
                    self._lines[-1] = self._lines[-1].model_copy(update=said)

    def term(
        self, key: str, value: float, rule: str, backing: Backing, to: str, **inputs: float
    ) -> None:
        """Write a term of the total ``to``; ``inputs`` are the figures that its rule used."""
        self._write(key, value, rule, backing, to, inputs, total=False)

    def named(
        self,
        key: str,
        label: str,
        value: float,
        words: str,
        rule: str,
        backing: Backing,
        to: str,
        **inputs: float,
    ) -> None:
        """Write a term with a label of its own, its reason under ``ledger.<words>.reason``."""
        self._lines.append(
            LedgerLine(
                id=key,
                label=label,
                value_mm=value,
                rule=rule,
                reason=say(f"ledger.{words}.reason", d=self._d, **inputs),
                backing=backing,
                inputs={"d": self._d, **inputs},
                adds_to=to,
            )
        )

    def total(self, key: str, rule: str, to: str | None = None, **inputs: float) -> float:
        """Write the total of all terms that named it, and return it [mm]."""
        value = sum(line.value_mm for line in self._lines if line.adds_to == key)
        self._write(key, value, rule, "geometry", to, inputs, total=True)
        return value

    def _write(
        self,
        key: str,
        value: float,
        rule: str,
        backing: Backing,
        to: str | None,
        inputs: dict[str, float],
        *,
        total: bool,
    ) -> None:
        self._lines.append(
            LedgerLine(
                id=key,
                label=say(f"ledger.{key}.label"),
                value_mm=value,
                rule=rule,
                reason=say(f"ledger.{key}.reason", d=self._d, **inputs),
                backing=backing,
                inputs={"d": self._d, **inputs},
                adds_to=to,
                total=total,
            )
        )
