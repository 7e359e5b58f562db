"""Words as they are searched: one normal form for what is kept and for what is asked.

Small letters; signs that stand for others (½, ligatures, wide letters) written out; marks on Latin
and Greek letters left out, so that "Zoe" finds "Zoë"; letters of any other script as they are.
"""

import unicodedata
from collections.abc import Iterator

# More of a word is neither kept nor looked for.
MOST_LETTERS = 40
# What marks are left out of, by the first word of a letter's name.
_BARE = ("LATIN", "GREEK")


def words_of(text: str) -> list[str]:
    """Return the words of a text in their normal form, in order.

    Args:
        text: whatever was typed.

    Source: Unicode Standard Annex 15, normalization forms; published.
    """
    plain = "".join(_folded(unicodedata.normalize("NFKC", text).casefold()))
    found, word = [], ""
    for letter in (*plain, " "):
        if unicodedata.category(letter)[0] in "LNM":
            word += letter
        elif word:
            found.append(word[:MOST_LETTERS])
            word = ""
    return found


def _folded(text: str) -> Iterator[str]:
    """Yield letters, the marks on Latin and Greek ones left out."""
    bare = False
    for letter in unicodedata.normalize("NFD", text):
        if not unicodedata.combining(letter):
            bare = unicodedata.name(letter, "").startswith(_BARE)
        elif bare:
            continue
        yield letter


def as_ascii(word: str) -> str:
    """Return a word in signs that full text keeps as they are, letter by letter, so that what
    begins alike still begins alike.

    Args:
        word: in its normal form.
    """
    return "".join(
        one if one in "abcdefghijklmnopqrstuvwxy0123456789" else f"z{ord(one):06x}" for one in word
    )
