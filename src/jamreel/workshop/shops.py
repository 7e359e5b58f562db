"""A workshop's settings: read, and changed under a lock of their own."""

from collections.abc import Callable
from typing import Any

from jamreel.core.plan import read_shop
from jamreel.workshop.models import Workshop

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
