"""A workshop's settings: read, and changed under a lock of their own."""

from collections.abc import Callable
from typing import Any

from jamreel.core.plan import read_shop
from jamreel.workshop.models import Piece, Workshop
from jamreel.workshop.ownership import rows

# What samples and finished pieces tell is kept beside the settings: it changes while they are open
# in a tab, and makes no piece stale but those that go by it.
OF_HAND = ("hand", "woven", "measured")
# So often settings that somebody else is saving are read again.
TRIES = 5


class StaleShop(Exception):
    """Settings saved from an older version."""


def change_shop(workshop: Workshop, version: int, typed: dict[str, Any]) -> Workshop:
    """Save settings as typed, once they can be read.

    Every piece says by which version of them it was worked out, so all are worked out anew when
    they are next looked at.

    Raises:
        BriefRefused: naming the setting that can't be read.
        StaleShop: ``version`` is not the settings' version.
    """
    read_shop(typed)
    standing = Workshop.objects.filter(pk=workshop.pk, shop_version=version)
    if not standing.update(shop=typed, shop_version=version + 1):
        raise StaleShop
    return Workshop.objects.get(pk=workshop.pk)


def change_settings(workshop: Workshop, change: Callable[[dict[str, Any]], dict[str, Any]]) -> None:
    """Change some of the settings, whoever saves others meanwhile.

    Args:
        workshop: whose settings.
        change: gives the settings to change from those that stand.

    Raises:
        StaleShop: settings that kept changing meanwhile.
    """
    for n in range(TRIES):
        fresh = Workshop.objects.get(pk=workshop.pk)
        typed = fresh.shop if isinstance(fresh.shop, dict) else {}
        try:
            changed = change_shop(fresh, fresh.shop_version, {**typed, **change(typed)})
        except StaleShop:
            if n == TRIES - 1:
                raise
        else:
            workshop.shop, workshop.shop_version = changed.shop, changed.shop_version
            return


def change_hand(workshop: Workshop, change: Callable[[dict[str, Any]], dict[str, Any]]) -> None:
    """Change what is known of a hand, whoever changes it meanwhile, and have those open pieces
    worked out anew that go by it.

    Args:
        workshop: whose hand.
        change: gives what changes, by ``OF_HAND``, from what stands.

    Raises:
        StaleShop: a hand that kept changing meanwhile.
    """
    for _ in range(TRIES):
        fresh = Workshop.objects.get(pk=workshop.pk)
        changed = {**fresh.hand, **change(fresh.hand)}
        read_shop(changed)
        standing = Workshop.objects.filter(pk=fresh.pk, hand_version=fresh.hand_version)
        if standing.update(hand=changed, hand_version=fresh.hand_version + 1):
            _mark(workshop, {key for key in OF_HAND if changed.get(key) != fresh.hand.get(key)})
            workshop.hand, workshop.hand_version = changed, fresh.hand_version + 1
            return
    raise StaleShop


def _mark(workshop: Workshop, what: set[str]) -> None:
    """Have pieces worked out anew: margins from the record go by the hand, all of them by what is
    known of their wire and weaves."""
    standing = rows(Piece, workshop).filter(finished_at=None)
    if not what & {"woven", "measured"}:
        standing = standing.filter(head__brief__cutting__school="record")
    if what:
        standing.update(worked_by="")
