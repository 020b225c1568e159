"""Own materials out and in; every error with its line, and nothing shipped is overridden."""

from __future__ import annotations

from dataclasses import replace

import pytest
from hypothesis import given
from hypothesis import strategies as st

from nimble_shell.core.errors import DomainError
from nimble_shell.core.materials import CATALOGUE, Material
from nimble_shell.formats.materials_csv import read_materials, write_materials

texts = st.text(st.characters(codec="utf-8", exclude_characters="\x00"), max_size=30).map(str.strip)
numbers = st.floats(1, 900)
shares = st.none() | numbers
tables = st.lists(st.tuples(st.floats(-40, 90), numbers), max_size=4, unique_by=lambda row: row[0]).map(
    lambda rows: tuple(sorted(rows))
)
own_materials = st.builds(
    Material, key=st.from_regex(r"own-[a-z0-9]{1,8}", fullmatch=True), name=texts.filter(bool), family=texts.filter(bool),
    hatch=st.sampled_from(["foam", "straw", "glass"]), lambda_=numbers, rho=numbers, c=numbers, mu=numbers, sd=shares,
    lambda_fresh=shares, lambda_T=tables, emissivity=st.floats(0.01, 1), cost=numbers, carbon=numbers,
    stock=st.lists(st.floats(1e-3, 3), max_size=3).map(tuple), usual=st.none() | st.tuples(*[st.floats(1e-3, 3)] * 2), mu_dry=shares,
    sd_moist=shares, lambda_moist=shares, w_fresh=numbers, mould=st.none() | st.just("sensitive"),
    wood=st.none() | st.just("board"), wets=st.none() | st.booleans(), takes_up=st.none() | st.booleans(), source=texts,
    rates=texts.filter(bool),
)  # fmt: skip


@given(st.lists(own_materials, min_size=1, max_size=3, unique_by=lambda one: one.key))
def test_any_own_materials_come_back_as_they_were(materials: list[Material]) -> None:
    assert read_materials(write_materials(materials)) == tuple(materials)


OWN = Material(key="own-foam", name="Own foam, “blue”", family="foam", hatch="foam", lambda_=0.0305, lambda_fresh=0.028,
               rho=31, c=1450, mu=80, sd=None, cost=199.5, carbon=3.9, stock=(0.08, 0.12), source="report 7, 2025",
               rates="CSV file")  # fmt: skip
SHEET = Material(key="own-sheet", name="=SUM(A1)", family="membrane", hatch="membrane", lambda_=0.3, rho=900, c=1800,
                 sd=4.5, rates="CSV file")  # fmt: skip


def test_what_goes_out_comes_in() -> None:
    found = read_materials(write_materials([OWN]))
    assert found == (OWN,)


def test_a_name_like_a_formula_is_made_harmless_for_spreadsheets() -> None:
    text = write_materials([SHEET]).decode()
    assert "'=SUM(A1)" in text
    assert read_materials(text.encode()) == (SHEET,)


def test_the_whole_catalogue_goes_out_but_is_not_taken_back() -> None:
    with pytest.raises(DomainError) as refused:
        read_materials(write_materials(list(CATALOGUE.values())))
    assert {issue.code for issue in refused.value.issues} == {"material_shipped"}
    assert refused.value.issues[0].path[:2] == ("line", 2)


def test_semicolons_and_decimal_commas_are_read() -> None:
    text = "key;name;lambda;rho;c;stock\nown-a;A;0,0351;20;1450;0,1 0,14\n"
    (found,) = read_materials(text.encode("cp1252"))
    assert (found.lambda_, found.stock) == (0.0351, (0.1, 0.14))


HEAD = "key,name,family,lambda,rho,c,emissivity,cost"


@pytest.mark.parametrize(
    ("lines", "codes"),
    [
        (["a,A,foam,0.03,20,1450,0.9,1", "a,B,foam,0.03,20,1450,0.9,1"], {"material_twice"}),
        (["a b,A,foam,0.03,20,1450,0.9,1"], {"key_unusable"}),
        (["a,A,foam,0,20,1450,0.9,1"], {"conductivity_not_positive"}),
        (["a,A,foam,thin,20,1450,0.9,1"], {"not_a_number"}),
        (["a,A,foam,,20,1450,0.9,1"], {"not_a_number"}),
        (["a,A,foam,0.03,20,1450,0.9,-5"], {"rate_negative"}),
        (["a,A,foam,0.03,20,1450,7,1"], {"emissivity_out_of_range"}),
        (["a,A,jelly,0.03,20,1450,0.9,1"], {"unknown_family"}),
        (["a,A,foam,0.03,20"], {"wrong_column_count"}),
        ([f"a,{'A' * 2001},foam,0.03,20,1450,0.9,1"], {"too_long"}),
    ],
)
def test_every_wrong_line_is_named(lines: list[str], codes: set[str]) -> None:
    with pytest.raises(DomainError) as refused:
        read_materials("\n".join([HEAD, *lines]).encode())
    assert {issue.code for issue in refused.value.issues} == codes
    assert refused.value.issues[0].path[:2] == ("line", len(lines) + 1)


def test_a_column_that_is_not_there_is_named() -> None:
    with pytest.raises(DomainError) as refused:
        read_materials(b"key,name,lambda\na,A,0.03\n")
    assert "rho, c" in refused.value.issues[0].message


def test_what_a_material_says_of_water_goes_out_and_comes_in() -> None:
    own = [replace(CATALOGUE[key], key=f"own-{key}")
           for key in ("osb", "vapour-variable", "stone-wool-board", "brick", "lime-plaster")]  # fmt: skip
    assert read_materials(write_materials(own)) == tuple(own)


def test_a_line_like_a_shipped_material_takes_all_of_it_over() -> None:
    (same, thinner) = read_materials(b"key,like,name,lambda\nown-osb,osb,,\nown-eps,eps-035,Own EPS,0.030\n")
    assert same == replace(CATALOGUE["osb"], key="own-osb", rates="CSV file")
    assert thinner == replace(CATALOGUE["eps-035"], key="own-eps", name="Own EPS", lambda_=0.030, rates="CSV file")


@pytest.mark.parametrize(
    ("line", "code"),
    [("a,slate,A,,", "unknown_material"), ("a,,A,very,", "unknown_word"), ("a,,A,,maybe", "unknown_word")],
)
def test_a_wrong_word_of_water_is_named(line: str, code: str) -> None:
    with pytest.raises(DomainError) as refused:
        read_materials(f"key,like,name,mould,wets\n{line}\n".encode())
    assert code in {issue.code for issue in refused.value.issues}
