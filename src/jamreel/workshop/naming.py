"""Names that people give: one line of readable text, the same however it was typed."""

import unicodedata

from jamreel.core.words import say

# Marks that turn the direction of text about: what stands behind them reads otherwise than it is.
_BIDI = frozenset("\u061c\u200e\u200f\u202a\u202b\u202c\u202d\u202e\u2066\u2067\u2068\u2069")
# Joiners belong to the spelling of some scripts, and to pictures.
_JOINERS = frozenset("\u200c\u200d")
_UNSEEN = frozenset({"Cc", "Cf", "Cs", "Co", "Zl", "Zp"})


def clean_text(typed: str) -> str:
    """Return one line of text: composed, spaces single, none around it.

    Args:
        typed: as it came.

    Raises:
        ValueError: control characters, half characters, or marks that turn text about.

    Example:
        >>> clean_text("  Wren   of Reed ")
        'Wren of Reed'

    Source: Unicode Standard Annex 15 (NFC); UAX 9 for the marks.
    """
    for sign in typed.strip():
        if sign in _BIDI or (unicodedata.category(sign) in _UNSEEN and sign not in _JOINERS):
            raise ValueError(say("name.sign", sign=f"U+{ord(sign):04X}"))
    return " ".join(unicodedata.normalize("NFC", typed).split())


def user_name(typed: str) -> str:
    """Return a user's name as it is kept and looked up: alike names are one.

    Args:
        typed: as it came.

    Raises:
        ValueError: as for ``clean_text``.

    Example:
        >>> user_name("ＲＥＥＤ")
        'reed'

    Source: Unicode Standard Annex 15 (NFKC) and default case folding.
    """
    # What is folded may need composing once more.
    folded = unicodedata.normalize("NFKC", typed).casefold()
    return clean_text(unicodedata.normalize("NFKC", folded))
