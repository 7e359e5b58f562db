"""The rows that are kept. Every row belongs to a workshop; history is only ever added to.

What came first is told by the rows' numbers, which only grow; a clock may be set back."""

from django.conf import settings
from django.db import models
from django.db.models import Q


class Workshop(models.Model):
    """A bench with its settings, as they were typed (a ``core.shop.Shop`` as JSON).

    One that is closed has nobody left; it is being deleted.
    """

    name = models.CharField(max_length=80)
    shop = models.JSONField(default=dict)
    shop_version = models.PositiveIntegerField(default=1)
    closed_at = models.DateTimeField(null=True, blank=True)
    # What its revisions, photographs and day plans take [bytes].
    kept_bytes = models.BigIntegerField(default=0)
    # What is known of the maker's hand (``shops.OF_HAND``): no setting, though plans go by it.
    hand = models.JSONField(default=dict)
    hand_version = models.PositiveIntegerField(default=1)
    # Tools that were taken out of the settings, to be brought back.
    tools_away = models.JSONField(default=list)
    members = models.ManyToManyField(settings.AUTH_USER_MODEL, related_name="workshops")

    def __str__(self) -> str:
        return self.name


class Owned(models.Model):
    """Base of every row below a workshop."""

    workshop = models.ForeignKey(Workshop, on_delete=models.CASCADE, related_name="+")

    class Meta:
        abstract = True


class Wearer(Owned):
    """Somebody who is measured."""

    name = models.CharField(max_length=80)
    part = models.CharField(max_length=80, blank=True)
    is_child = models.BooleanField(default=False)
    note = models.CharField(max_length=500, blank=True)
    put_away_at = models.DateTimeField(null=True, blank=True)

    class Meta:
        ordering = ["name"]
        # Two imports at once make one wearer of a name.
        constraints = [models.UniqueConstraint(fields=["workshop", "name"], name="one_of_a_name")]

    def __str__(self) -> str:
        return self.name


class Reading(Owned):
    """One reading of a wearer, as typed: its value, and all else of it (``readings.BESIDE``).
    Replaced readings stay as history."""

    wearer = models.ForeignKey(Wearer, on_delete=models.CASCADE, related_name="readings")
    site = models.CharField(max_length=40)
    value = models.CharField(max_length=40)
    unit = models.CharField(max_length=2, default="mm")
    beside = models.JSONField(default=dict)
    replaced = models.BooleanField(default=False)

    class Meta:
        ordering = ["id"]


class Piece(Owned):
    """A piece being made. ``version`` counts every change of its head, for the optimistic lock.

    ``turn`` counts everything that happens to it: who works a change out writes it in that turn or
    not at all. ``waits_for`` and ``state`` are derived, so that the bench lists pieces without
    planning each; ``worked_by`` says by which settings and which code.
    """

    name = models.CharField(max_length=120)
    wearer = models.ForeignKey(
        Wearer, on_delete=models.SET_NULL, null=True, blank=True, related_name="pieces"
    )
    due = models.DateField(null=True, blank=True)
    version = models.PositiveIntegerField(default=1)
    turn = models.PositiveIntegerField(default=0)
    worked_by = models.CharField(max_length=60, blank=True)
    head = models.ForeignKey("Revision", on_delete=models.RESTRICT, null=True, related_name="+")
    waits_for = models.CharField(max_length=20, default="measure")
    state = models.JSONField(default=dict)
    created_at = models.DateTimeField(auto_now_add=True)
    finished_at = models.DateTimeField(null=True, blank=True)
    put_away_at = models.DateTimeField(null=True, blank=True)
    # In bench mode: the step that it was left at, and since when it is in hand.
    at_step = models.CharField(max_length=140, blank=True)
    in_hand_since = models.DateTimeField(null=True, blank=True)
    # What was known of the maker's hand when its first wire was cut (a ``core.hand.Hand``).
    hand = models.JSONField(null=True, blank=True)

    class Meta:
        indexes = [models.Index(fields=["workshop", "finished_at"], name="piece_finished")]

    def __str__(self) -> str:
        return self.name


class Revision(Owned):
    """A brief as it was saved, never changed. ``burst`` is the first of a run of typing.

    Old ones are thinned out (``thinning``); what a tick, try-on, log entry or day went by stays.
    """

    piece = models.ForeignKey(Piece, on_delete=models.CASCADE, related_name="revisions")
    parent = models.ForeignKey("self", on_delete=models.RESTRICT, null=True, related_name="next")
    burst = models.ForeignKey("self", on_delete=models.RESTRICT, null=True, related_name="+")
    brief = models.JSONField()
    # What it takes [bytes].
    size = models.PositiveIntegerField(default=0)
    field = models.CharField(max_length=120, blank=True)
    saved_at = models.DateTimeField()

    # Whether it was written just now: nothing comes after it.
    fresh = False


class Tick(Owned):
    """A wire cut, a step or beads fetched, ticked off. Unticking sets ``undone_at``; the row stays.

    ``planned`` and ``actual`` are lengths [mm] of a wire and counts of beads; ``what`` keeps what
    it was for (a ``core`` record as JSON).
    """

    piece = models.ForeignKey(Piece, on_delete=models.CASCADE, related_name="ticks")
    kind = models.CharField(max_length=10, choices=[(k, k) for k in ("cut", "step", "need")])
    key = models.CharField(max_length=140)
    planned = models.FloatField(null=True)
    actual = models.FloatField(null=True)
    what = models.JSONField(default=dict)
    revision = models.ForeignKey(Revision, on_delete=models.SET_NULL, null=True, related_name="+")
    ticked_at = models.DateTimeField()
    undone_at = models.DateTimeField(null=True)

    class Meta:
        ordering = ["id"]
        constraints = [
            # Two tabs may press the same tick: one wins, the other is told.
            models.UniqueConstraint(
                fields=["piece", "kind", "key"],
                condition=Q(undone_at__isnull=True),
                name="one_standing_tick",
            )
        ]


class Stock(Owned):
    """Something on the rack: a reel, lengths and offcuts of wire, beads, findings.

    What there is of it is the sum of its movements: millimetres of wire, or pieces. ``wire`` is the
    wire as typed (a ``core`` wire choice as JSON), ``key`` what cuts may come off it. ``trial`` is
    what it came off a former at, and the yield that tells of it.
    """

    kind = models.CharField(max_length=10)
    name = models.CharField(max_length=80)
    wire = models.JSONField(default=dict)
    key = models.CharField(max_length=120, blank=True, db_index=True)
    said = models.CharField(max_length=120, blank=True)
    tare_g = models.FloatField(default=0)
    price = models.FloatField(null=True)
    low = models.FloatField(default=0)
    size_mm = models.FloatField(null=True)
    hole_mm = models.FloatField(null=True)
    trial = models.JSONField(default=dict)
    put_away_at = models.DateTimeField(null=True, blank=True)

    class Meta:
        ordering = ["kind", "name", "id"]

    def __str__(self) -> str:
        return self.name


class Movement(Owned):
    """A gain or a use of stock; never changed, only undone by another one."""

    stock = models.ForeignKey(Stock, on_delete=models.RESTRICT, related_name="movements")
    amount = models.FloatField()
    reason = models.CharField(max_length=12)
    note = models.CharField(max_length=200, blank=True)
    tick = models.ForeignKey(Tick, on_delete=models.RESTRICT, null=True, related_name="movements")
    undoes = models.OneToOneField(
        "self", on_delete=models.RESTRICT, null=True, related_name="undone_by"
    )
    at = models.DateTimeField()

    class Meta:
        ordering = ["id"]


class TryOnRecord(Owned):
    """A try-on as noted, with what was answered to it at the time."""

    piece = models.ForeignKey(Piece, on_delete=models.CASCADE, related_name="tryons")
    noted = models.JSONField()
    answer = models.JSONField()
    revision = models.ForeignKey(Revision, on_delete=models.SET_NULL, null=True, related_name="+")
    done = models.BooleanField(default=False)
    noted_at = models.DateTimeField()

    class Meta:
        ordering = ["id"]


class StepClock(Owned):
    """How a step goes at the bench: the seconds worked on it, since when its clock runs, how many
    of its repeats are counted, and what the maker told of it, by the id of what is asked."""

    piece = models.ForeignKey(Piece, on_delete=models.CASCADE, related_name="clocks")
    key = models.CharField(max_length=140)
    seconds = models.FloatField(default=0)
    since = models.DateTimeField(null=True)
    counted = models.PositiveIntegerField(default=0)
    told = models.JSONField(default=dict)

    class Meta:
        constraints = [models.UniqueConstraint(fields=["piece", "key"], name="one_clock_of_a_step")]


class Wait(Owned):
    """A time that a piece is left alone after a step. ``over_at`` is when its maker went on."""

    piece = models.ForeignKey(Piece, on_delete=models.CASCADE, related_name="waits")
    key = models.CharField(max_length=140)
    title = models.CharField(max_length=300)
    began_at = models.DateTimeField()
    ends_at = models.DateTimeField()
    over_at = models.DateTimeField(null=True)

    class Meta:
        ordering = ["ends_at", "id"]


class HandRecord(Owned):
    """A ratio of what was taken to what was planned: wire of a technique in a class of wire, the
    minutes of a kind of work, a finished length. It is set aside with a reason, never deleted.

    ``source`` says what it was read off; of a former test ``planned`` is the former, ``took`` what
    came off it [mm], ``ratio`` the yield [MPa].
    """

    kind = models.CharField(max_length=8)
    technique = models.CharField(max_length=60)
    stock = models.CharField(max_length=120, blank=True)
    planned = models.FloatField()
    took = models.FloatField()
    ratio = models.FloatField()
    source = models.CharField(max_length=12)
    piece = models.ForeignKey(Piece, on_delete=models.SET_NULL, null=True, related_name="records")
    reel = models.ForeignKey(Stock, on_delete=models.SET_NULL, null=True, related_name="+")
    note = models.CharField(max_length=200, blank=True)
    at = models.DateTimeField()
    set_aside_at = models.DateTimeField(null=True)
    why = models.CharField(max_length=200, blank=True)

    class Meta:
        ordering = ["id"]
        indexes = [
            models.Index(
                fields=["workshop", "kind", "technique", "stock", "-id"],
                name="record_of_a_technique",
            )
        ]


class LogEntry(Owned):
    """A finished piece as it went into the log: what, for whom, of what, how it came out.

    Lengths in mm, times in minutes, masses in g, money in the bench's own. One that was opened
    again is out of the log until it is finished anew.
    """

    piece = models.OneToOneField(Piece, on_delete=models.SET_NULL, null=True, related_name="entry")
    name = models.CharField(max_length=120)
    wearer = models.CharField(max_length=80, blank=True)
    kind = models.CharField(max_length=40, blank=True)
    made_of = models.CharField(max_length=200, blank=True)
    metals = models.CharField(max_length=200, blank=True)
    reels = models.CharField(max_length=400, blank=True)
    finished_on = models.DateField()
    finished_at = models.DateTimeField()
    planned_mm = models.FloatField(null=True)
    made_mm = models.FloatField(null=True)
    inside_planned_mm = models.FloatField(null=True)
    inside_made_mm = models.FloatField(null=True)
    tries = models.PositiveIntegerField(default=0)
    minutes = models.FloatField(null=True)
    minutes_planned = models.FloatField(default=0)
    wire_mm = models.FloatField(default=0)
    waste_mm = models.FloatField(default=0)
    waste_g = models.FloatField(default=0)
    material = models.FloatField(null=True)
    # What went into it and has no price, by name.
    unpriced = models.CharField(max_length=400, blank=True)
    note = models.CharField(max_length=500, blank=True)
    # The words that it is found by, as full text keeps them (``searching``).
    words = models.TextField(blank=True)
    revision = models.ForeignKey(Revision, on_delete=models.SET_NULL, null=True, related_name="+")
    opened_at = models.DateTimeField(null=True)
    put_away_at = models.DateTimeField(null=True)

    class Meta:
        indexes = [models.Index(fields=["workshop", "-id"], name="log_newest")]


class LogWord(Owned):
    """A word that entries of a log have: a search that has its beginning finds it here, and then
    its entries, without going through all that begin so."""

    word = models.CharField(max_length=40)

    class Meta:
        constraints = [
            models.UniqueConstraint(fields=["workshop", "word"], name="one_of_a_log_word")
        ]


class Photo(Owned):
    """A photograph of a finished piece, drawn anew: what came with the file is gone."""

    entry = models.ForeignKey(LogEntry, on_delete=models.CASCADE, related_name="photos")
    picture = models.BinaryField()
    width = models.PositiveIntegerField()
    height = models.PositiveIntegerField()
    at = models.DateTimeField()

    class Meta:
        ordering = ["id"]


class DayPlan(Owned):
    """A day at the bench: what was chosen, and the order that was found for it, as JSON."""

    day = models.DateField()
    chosen = models.JSONField(default=dict)
    found = models.JSONField(default=dict)
    # The turn of each piece that it was worked out for, and the settings.
    worked_for = models.JSONField(default=dict)
    worked_at = models.DateTimeField(null=True)

    class Meta:
        constraints = [
            models.UniqueConstraint(fields=["workshop", "day"], name="one_plan_of_a_day")
        ]
