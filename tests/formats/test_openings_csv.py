"""Opening schedules: read to their areas, refused by line and column, written so that they can be read again."""

from __future__ import annotations

from pathlib import Path

import pytest

from nimble_shell.core.errors import DomainError
from nimble_shell.formats.openings_csv import read_openings, write_openings

HERE = Path(__file__).parent / "csv"


def sample(name: str) -> bytes:
    return next(HERE.glob(f"{name}_*.csv")).read_bytes()


@pytest.mark.parametrize(("name", "count", "area"), [("c1", 8, 12.18), ("c2", 4, 5.0052)])
def test_a_schedule_reads_to_its_area(name: str, count: int, area: float) -> None:
    found = read_openings(sample(name))
    assert len(found) == count
    assert sum(one.w * one.h for one in found) == pytest.approx(area, abs=1e-4)


@pytest.mark.parametrize(
    ("name", "said"),
    [
        ("c_b1", ["line 17, column width: “15O0” is not a number"]),
        ("c_b2", ["line 1: no column for height"]),
        ("c_b3", ["line 5 has 4 columns, the header 8"]),
        ("c_b4", ["line 2, column width", "line 3, column height", "line 4, column count"]),
        ("c_b5", ["line 2, column height: 30 480 mm"]),
    ],
)
def test_what_is_wrong_is_named_by_line_and_column_all_at_once(name: str, said: list[str]) -> None:
    with pytest.raises(DomainError) as error:
        read_openings(sample(name))
    assert len(error.value.issues) == len(said)
    for issue, words in zip(error.value.issues, said, strict=True):
        assert str(issue.message).replace("\u202f", " ").replace("\u2009", " ").startswith(words)


def test_marks_are_texts_and_never_formulas_when_written_again() -> None:
    found = read_openings(sample("c_b6"))
    assert found[0].mark.startswith("=HYPERLINK")
    written = write_openings(found)
    assert b"'=HYPERLINK" in written
    assert b",'@SUM" in written
    assert [(one.mark, one.w, one.u) for one in read_openings(written)] == [(one.mark, one.w, one.u) for one in found]
