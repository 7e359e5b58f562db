"""A workshop's settings: read, and changed under a lock of their own."""

from typing import Any

from jamreel.core.plan import read_shop
from jamreel.workshop.models import Workshop


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
