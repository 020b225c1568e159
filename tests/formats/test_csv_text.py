"""Tables as people have them: whatever separates, whatever counts as a comma, whoever wrote the file."""

from __future__ import annotations

import pytest
from hypothesis import given
from hypothesis import strategies as st

from nimble_shell.core.errors import DomainError
from nimble_shell.formats.csv_text import decode, read_table, write_table


@given(st.lists(st.lists(st.text(st.characters(codec="utf-8", exclude_characters="\x00")).map(str.strip), min_size=2,
                         max_size=2), min_size=1, max_size=5))  # fmt: skip
def test_any_texts_come_back_as_they_were(rows: list[list[str]]) -> None:
    found = read_table(write_table(["a", "b"], rows)).rows
    assert [list(row) for _, row in found] == [row for row in rows if any(row)]


def test_a_cell_without_end_is_refused_by_its_line() -> None:
    with pytest.raises(DomainError, match="line 2"):
        read_table(b"a,b\n1," + b"x" * 140_000 + b"\n")


PLAIN = "month,theta\n1,-8.1\n2,5\n"


@pytest.mark.parametrize(
    ("text", "encoding"),
    [(PLAIN, "utf-8"), (PLAIN, "utf-8-sig"), (PLAIN, "utf-16"), ("name,µ\nKork,5\n", "cp1252"), (PLAIN, "ascii")],
)
def test_any_usual_encoding_is_read(text: str, encoding: str) -> None:
    assert decode(text.encode(encoding)).lstrip("\ufeff") == text


def test_what_is_no_text_is_refused() -> None:
    with pytest.raises(DomainError) as caught:
        decode(b"PK\x03\x04\x00\x00binary")
    assert caught.value.issues[0].code == "not_a_text"


@pytest.mark.parametrize("mark", [",", ";", "\t"])
@pytest.mark.parametrize("line_end", ["\n", "\r\n", "\r"])
def test_the_separator_is_the_one_the_header_has_most_of(mark: str, line_end: str) -> None:
    table = read_table(line_end.join(mark.join(row) for row in (("a", "b", "c"), ("1", "2", "3"))).encode())
    assert table.header == ("a", "b", "c")
    assert table.rows == ((2, ("1", "2", "3")),)
    assert table.decimal_comma is (mark != ",")


@pytest.mark.parametrize(
    ("text", "comma", "value"),
    [
        ("1.5", False, 1.5), ("1,5", True, 1.5), ("−8.1", False, -8.1), ("1\u2009450", False, 1450.0), (" 7 ", False, 7.0),
        ("1e-3", False, 0.001), ("", False, None), ("seven", False, None), ("nan", False, None), ("inf", False, None),
        ("1,5", False, None),
    ],
)  # fmt: skip
def test_a_number_is_read_as_it_is_written(text: str, comma: bool, value: float | None) -> None:
    mark = ";" if comma else ","
    table = read_table(f"a{mark}b\nx{mark}y".encode())
    assert table.number(text) == value


def test_a_column_is_found_without_regard_to_case_and_unit() -> None:
    table = read_table("Month; Temperature [°C]; RH (%)\n1;2;3".encode())
    assert table.column(["temperature"]) == 1
    assert table.column(["rh", "humidity"]) == 2
    assert table.column(["wind"]) is None


def test_empty_lines_are_passed_over_and_lines_keep_their_number() -> None:
    table = read_table(b"\n\na,b\n\n1,2\n\n\n3,4\n")
    assert table.header_line == 3
    assert [line for line, _ in table.rows] == [5, 8]


def test_a_text_in_quotes_may_hold_the_separator() -> None:
    table = read_table(b'name,lambda\n"Board, thick",0.13\n')
    assert table.rows[0][1] == ("Board, thick", "0.13")


@pytest.mark.parametrize(("content", "code", "line"), [(b"", "file_empty", 1), (b" \n \n", "file_empty", 1)])
def test_an_empty_file_is_told(content: bytes, code: str, line: int) -> None:
    with pytest.raises(DomainError) as caught:
        read_table(content)
    assert (caught.value.issues[0].code, caught.value.issues[0].path) == (code, ("line", line))


def test_every_line_of_another_width_is_named() -> None:
    with pytest.raises(DomainError) as caught:
        read_table(b"a,b\n1,2\n1\n1,2,3\n")
    assert [issue.path[-1] for issue in caught.value.issues] == [3, 4]


def test_a_thousand_wrong_lines_are_told_by_the_first_twenty() -> None:
    with pytest.raises(DomainError) as caught:
        read_table(b"a,b\n" + b"1\n" * 1000)
    assert len(caught.value.issues) == 20


@pytest.mark.parametrize("cell", ["=1+1", "+1", "-x", "@cmd", "\tx"])
def test_what_a_spreadsheet_would_run_is_written_as_a_text(cell: str) -> None:
    written = write_table(["a"], [[cell]]).decode()
    assert f"'{cell}" in written


def test_what_is_written_is_read_again() -> None:
    rows = [["Board, thick", 0.13], ['a "quote"', -5.0]]
    table = read_table(write_table(["name", "value"], rows))
    assert [cells[0] for _, cells in table.rows] == ["Board, thick", 'a "quote"']
    assert [table.number(cells[1]) for _, cells in table.rows] == [0.13, -5.0]
