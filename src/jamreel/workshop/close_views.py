"""Woven bodies pulled tight for the close view: in a process of their own, and remembered.

Nobody waits for one: meanwhile a body is shown as it is laid, and the page asks again.
"""

import hashlib
import logging
import pickle
import threading

from django.core.cache import caches

from jamreel.core.forming.palette import Palette
from jamreel.core.interlace.base import Interlaced
from jamreel.core.interlace.cells import Cell
from jamreel.core.workpiece.woven import Pulls, tightened
from jamreel.workshop.apart import Broken, Spent, apart
from jamreel.workshop.models import Workshop
from jamreel.workshop.planning import code
from jamreel.workshop.slots import alone

log = logging.getLogger(__name__)

# What pulling one tight may take [s of processor, MB].
SECONDS, MEGABYTES = 5.0, 600
# Whoever pulls one tight beside the requests.
THREAD = "close view"
# Kept for what could not be pulled tight: it stays as it is laid.
_NOT = b""
# So long after a fault a body is pulled tight anew [s].
AGAIN_S = 60


def pulls_for(workshop: Workshop) -> Pulls:
    """Return what gives a body pulled tight where that is known, and begins to pull it where not.

    Args:
        workshop: whose bench asks; one is pulled at a time for each.
    """

    def pull(part: Interlaced, wires: Palette) -> Cell | None:
        given = pickle.dumps((part, wires))
        key = hashlib.blake2b(code().encode() + given, digest_size=16).hexdigest()
        known = caches["close_views"].get(key)
        if known is None:
            given_over = (workshop.pk, key, part, wires)
            threading.Thread(target=_pull, args=given_over, name=THREAD).start()
            return None
        if known == _NOT:
            body = part.body(wires)
            return (
                body.look.close(lambda cell: cell)
                if body.look.close is not None
                else body.look.cell()
            )
        found: Cell = pickle.loads(known)
        return found

    return pull


def _pull(bench: int, key: str, part: Interlaced, wires: Palette) -> None:
    """Pull a body tight and remember it; while another one is under way it is left for later."""
    with alone("close", bench) as mine:
        if not mine or caches["close_views"].get(key) is not None:
            return
        try:
            cell = apart(tightened, part, wires, seconds=SECONDS, megabytes=MEGABYTES)
        except Spent:
            caches["close_views"].set(key, _NOT, timeout=None)
        except Broken:
            # No bound of the body's: it is tried again in a while, and seen as laid until then.
            caches["close_views"].set(key, _NOT, timeout=AGAIN_S)
            log.exception("a body was not pulled tight")
        else:
            caches["close_views"].set(key, pickle.dumps(cell), timeout=None)
