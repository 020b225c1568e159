"""The shop on the screen: one next act, bars nested anew, boards, and a panel that is laid down and not square."""

from __future__ import annotations

import re

import pytest
from playwright.sync_api import Page, expect
from web.board import Board

from tools.window import Server

HERE = "main-laboratory/D8"


@pytest.fixture
def board(page: Page, server: Server, shaped: str) -> Board:
    board = Board(page, server.address, shaped).open(HERE)
    expect(page.get_by_role("button", name="Cut. Next one")).to_be_visible()
    return board


def sheet(page: Page, name: str) -> None:
    page.get_by_role("navigation", name="Sheets of the shop").get_by_role("link", name=name).click()


def stored(board: Board, server: Server) -> dict:  # type: ignore[type-arg]  # of the wire
    project = server.call("GET", f"/projects/{board.project}")["project"]
    return next(one for one in project["buildings"] if one["id"] == "main-laboratory")["shop"]  # type: ignore[no-any-return]


def test_one_act_is_next_and_enter_does_it(board: Board, server: Server) -> None:
    page = board.page
    act = page.get_by_role("region", name="Next cut")
    first = act.get_by_role("heading").inner_text()
    page.locator("body").press("Enter")
    expect(act.get_by_role("heading")).not_to_have_text(first)
    expect(page.locator(".ledger")).to_contain_text("cut")
    assert len(stored(board, server)["cut"]) == 1
    page.keyboard.press("ControlOrMeta+z")
    expect(act.get_by_role("heading")).to_have_text(first)
    assert stored(board, server)["cut"] == []


def test_a_wrong_length_goes_to_the_rack_and_the_rest_is_nested_anew(board: Board, server: Server) -> None:
    page = board.page
    act = page.get_by_role("region", name="Next cut")
    for _ in range(3):  # skins and core come before timber
        said = act.get_by_role("heading").inner_text()
        page.get_by_role("button", name="Cut. Next one").click()
        expect(act.get_by_role("heading")).not_to_have_text(said)
    page.get_by_role("button", name="Wrong length").click()
    field = page.get_by_label("it came out")
    field.fill("2390")
    field.press("Enter")
    expect(page.locator(".ledger")).to_contain_text("came out 2 390 mm, to the rack")
    sheet(page, "Bars")
    expect(page.get_by_role("row").filter(has_text="2 390")).to_be_visible()
    assert stored(board, server)["rack"][0]["length"] == pytest.approx(2.39)
    length = page.get_by_label("length 1 of bars")
    length.fill("40 m")
    length.press("Enter")
    expect(page.get_by_text(re.compile("0.5 m to 20 m"))).to_be_visible()
    expect(length).to_have_value("40 m")


def test_a_panel_out_of_square_says_which_way(board: Board) -> None:
    page = board.page
    sheet(page, "Laydown")
    page.get_by_role("button", name="B-06").click()
    asked = page.locator("tbody td.n:nth-child(2)").all_inner_texts()
    read = [float(one.replace("\N{THIN SPACE}", "").replace(" ", "")) for one in asked]
    read[4] += 9
    for name, value in zip(("a b", "b c", "c d", "d a", "a c", "b d"), read, strict=True):
        field = page.get_by_label(f"read {name}")
        field.fill(f"{value:g}")
        field.press("Enter")
    verdict = page.get_by_test_id("laydown")
    expect(verdict).to_contain_text(re.compile("Not square yet|no quadrilateral"))
    field = page.get_by_label("read a c")
    field.fill(f"{read[4] - 9:g}")
    field.press("Enter")
    expect(verdict).to_contain_text("Square.")
