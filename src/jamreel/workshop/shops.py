"""A workshop's settings: read, and changed under the same lock as a piece."""

from typing import Any

from django.db import transaction

from jamreel.core.plan import read_shop
from jamreel.workshop.models import Piece, Workshop
from jamreel.workshop.ownership import rows
from jamreel.workshop.pieces import settle
from jamreel.workshop.planning import plan_of


class StaleShop(Exception):
    """Settings saved from an older version."""


def change_shop(workshop: Workshop, version: int, typed: dict[str, Any]) -> Workshop:
    """Save settings as typed, once they can be read, and work every piece out anew.

    Raises:
        BriefRefused: naming the setting that can't be read.
        StaleShop: ``version`` is not the settings' version.
    """
    shop = read_shop(typed)
    standing = rows(Piece, workshop).filter(put_away_at__isnull=True, finished_at__isnull=True)
    # Worked out before anything is locked.
    planned = {piece.pk: (piece.version, plan_of(piece, shop)) for piece in standing}
    with transaction.atomic():
        fresh = Workshop.objects.get(pk=workshop.pk)
        if fresh.shop_version != version:
            raise StaleShop
        fresh.shop = typed
        fresh.shop_version += 1
        fresh.save()
        for piece in standing.all():
            at, found = planned.get(piece.pk, (0, None))
            settle(piece, shop, found if at == piece.version else None)
    return fresh
