"""Lengths as builders write them: 184, 184mm, 0.184 m, 7 1/4, 7.25in, 7' 10 3/8", 140+45."""

from __future__ import annotations

import re
from fractions import Fraction

from nimble_shell.core.errors import DomainError, Issue
from nimble_shell.core.quantities.units import UnitSystem

_INCH = Fraction(254, 10000)  # [m], exact
_METRIC = {"mm": Fraction(1, 1000), "cm": Fraction(1, 100), "m": Fraction(1)}
_DECIMAL = r"(?:\d+(?:\.\d*)?|\.\d+)"
_FRACTION = r"(?:\d+\s*/\s*\d+)"
_AMOUNT = rf"(?:{_DECIMAL}(?:[ -]+{_FRACTION})?|{_FRACTION})"
_FEET_INCHES = re.compile(rf"^(?P<feet>{_AMOUNT})\s*(?:ft|')\s*-?\s*(?:(?P<inches>{_AMOUNT})\s*(?:in|\"|'')?)?$")
_PLAIN = re.compile(rf"^(?P<amount>{_AMOUNT})\s*(?P<unit>mm|cm|m|in|\"|'')?$")
_MARKS = str.maketrans({"′": "'", "″": '"', "’": "'", "”": '"', "“": '"', "\u2009": " ", "\u202f": " ", "–": "-"})
_VULGAR = {"½": "1/2", "¼": "1/4", "¾": "3/4", "⅛": "1/8", "⅜": "3/8", "⅝": "5/8", "⅞": "7/8"}


#: Thousands parted by spaces: 8 400.
_GROUPED = re.compile(r"^\d{1,3}(?: \d{3})+(?!\s*[\d/])")


def parse_length(text: str, system: UnitSystem = "SI") -> float:
    """A length in metres from what a person wrote.

    Parameters
    ----------
    text : str
        A number with mm, cm, m, in, ", ft or ' ; feet and inches together; fractions; sums and differences.
        Without a unit it is mm in SI, inches in IP; a bare fraction (7 1/4) is always inches.
    system : {"SI", "IP"}

    Returns
    -------
    float
        Length. [m] Fractions of an inch are exact before the last rounding to a float.

    Raises
    ------
    DomainError
        If it cannot be read as a length.
    """
    cleaned = text.translate(_MARKS).strip().lower()
    for glyph, written in _VULGAR.items():
        cleaned = cleaned.replace(glyph, f" {written}")
    total = Fraction(0)
    # A sum is split at + and at a minus that stands free or between a number and a number with no fraction behind.
    try:
        for sign, term in _terms(cleaned.strip()):
            total += sign * _one(term, system)
    except (ValueError, ZeroDivisionError) as error:
        raise DomainError(_unreadable(text, system)) from error
    return float(total)


def format_feet_inches(metres: float, *, denominator: int = 16) -> str:
    """A length as feet, inches and a fraction, rounded to 1/denominator inch: 2.3971 m → 7' 10 3/8"; 0.5 mm is 0.020".

    Raises
    ------
    ValueError
        If the denominator is not a power of two up to 64.
    """
    if denominator not in (2, 4, 8, 16, 32, 64):
        raise ValueError(f"denominator is {denominator}")
    if 0 < abs(metres) < 0.9 * float(_INCH) / denominator:  # sheets and membranes: no fraction says them
        return f'{"−" if metres < 0 else ""}{abs(metres) / float(_INCH):.3f}"'
    parts = round(Fraction(abs(metres)) / _INCH * denominator)
    feet, rest = divmod(parts, 12 * denominator)
    inches, numerator = divmod(rest, denominator)
    fraction = f"{Fraction(numerator, denominator)}" if numerator else ""
    inch_text = " ".join(part for part in (str(inches) if inches or not fraction else "", fraction) if part)
    sign = "−" if metres < 0 and parts else ""
    return f"{sign}{feet}' {inch_text}\"" if feet else f'{sign}{inch_text}"'


def _terms(text: str) -> list[tuple[int, str]]:
    parts = re.split(r"\s*(\+|(?<=[\dm\"n])\s+-\s+)\s*", text)
    terms = [(1, parts[0])]
    for operator, term in zip(parts[1::2], parts[2::2], strict=True):
        terms.append((-1 if "-" in operator else 1, term))
    return terms


def _one(term: str, system: UnitSystem) -> Fraction:
    term = _GROUPED.sub(lambda found: found[0].replace(" ", ""), term)
    both = _FEET_INCHES.match(term)
    if both:
        inches = _amount(both["inches"]) if both["inches"] else Fraction(0)
        return (_amount(both["feet"]) * 12 + inches) * _INCH
    found = _PLAIN.match(term)
    if not found:
        raise ValueError(term)
    unit = found["unit"] or ("in" if "/" in found["amount"] or system == "IP" else "mm")
    return _amount(found["amount"]) * _METRIC.get(unit, _INCH)


def _amount(text: str) -> Fraction:
    parts = re.split(r"(?<![/ ])[ -]+(?=\d+\s*/)", text.strip())
    return sum((Fraction(part.replace(" ", "")) for part in parts), Fraction(0))


#: What a length may look like, in the units of who writes it.
EXAMPLES: dict[UnitSystem, str] = {
    "SI": "184, 184mm, 0.184 m, 7 1/4, 7.25in or 140+45",
    "IP": "7 1/4, 7.25in, 7' 10 3/8\" or 5 1/2 + 1 3/4",
}


def _unreadable(text: str, system: UnitSystem) -> Issue:
    return Issue(
        path=(),
        code="length_unreadable",
        message=f"“{text}” cannot be read as a length",
        hint=f"write for example {EXAMPLES[system]}",
    )
