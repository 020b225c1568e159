"""Set-out on the screen: joints and openings moved by hand and keys, better places taken, and what cannot be said so."""

from __future__ import annotations

import re

import pytest
from playwright.sync_api import Page, expect
from web.board import Board

from tools.window import Server, quiet

HERE = "main-laboratory/D6"


@pytest.fixture
def board(page: Page, server: Server, shaped: str) -> Board:
    board = Board(page, server.address, shaped).open(HERE)
    expect(page.get_by_role("group", name="Face A cut into panels")).to_be_visible()
    return board


def stored(board: Board, server: Server) -> dict:  # type: ignore[type-arg]  # of the wire
    project = server.call("GET", f"/projects/{board.project}")["project"]
    return next(one for one in project["buildings"] if one["id"] == "main-laboratory")


def test_a_joint_goes_with_the_hand_and_stays_where_it_is_put(board: Board, server: Server) -> None:
    page = board.page
    joint = page.get_by_role("button", name="Joint at 5 375 mm")
    box = joint.bounding_box()
    assert box is not None
    x, y = box["x"] + box["width"] / 2, box["y"] + box["height"] / 2
    page.mouse.move(x, y)
    page.mouse.down()
    page.mouse.move(x + 30, y, steps=6)
    page.mouse.up()
    expect(page.get_by_text("Not applied yet: Joint of A")).to_be_visible()
    expect(page.get_by_role("button", name=re.compile("^Joint at .*, pinned$"))).to_have_count(1)
    page.keyboard.press("Escape")
    expect(page.get_by_role("button", name="Joint at 5 375 mm")).to_be_visible()
    page.get_by_role("button", name="Joint at 5 375 mm").press("ArrowRight")
    expect(page.get_by_role("button", name="Joint at 5 380 mm, pinned")).to_be_visible()
    quiet(page)
    page.keyboard.press("Enter")
    expect(page.get_by_text("Not applied yet")).to_have_count(0)
    expect(page.get_by_role("button", name="Joint at 5 380 mm, pinned")).to_be_visible()
    pin = stored(board, server)["setout"]["pins"][0]
    assert (pin["u"], pin["storey"]) == (5.38, 0)
    page.get_by_role("button", name="Joint at 5 380 mm, pinned").press("Delete")
    expect(page.get_by_role("button", name="Joint at 5 375 mm")).to_be_visible()
    page.keyboard.press("ControlOrMeta+z")
    expect(page.get_by_role("button", name="Joint at 5 380 mm, pinned")).to_be_visible()


def test_a_better_place_is_offered_taken_and_undone(board: Board, server: Server) -> None:
    page = board.page
    page.get_by_role("navigation", name="Faces").get_by_role("link", name="wall B").click()
    offer = page.get_by_role("button", name=re.compile("^Move W7 300 mm left"))
    expect(page.get_by_test_id("saves")).to_contain_text("−1", timeout=90_000)  # looked for in a busy server
    offer.click()
    expect(page.get_by_role("group", name="Face B cut into panels")).to_contain_text("B-09")
    expect(page.get_by_text("B-10", exact=True)).to_have_count(0)
    expect(page.locator(".ledger")).to_contain_text("W7 moved 300 mm left")
    moved = next(one for one in stored(board, server)["openings"] if one["mark"] == "W7")
    page.keyboard.press("ControlOrMeta+z")
    expect(page.get_by_text("B-10", exact=True).first).to_be_visible()
    expect(page.locator(".ledger")).not_to_contain_text("W7 moved")
    back = next(one for one in stored(board, server)["openings"] if one["mark"] == "W7")
    assert back["u"] - moved["u"] == pytest.approx(0.3)


def test_what_cannot_be_set_out_says_why_and_is_not_taken(board: Board, server: Server) -> None:
    page = board.page
    page.get_by_role("navigation", name="Sheets of the set-out").get_by_role("link", name="Timber").click()
    field = page.get_by_label("heaviest that can be lifted")
    field.fill("10")
    field.press("Enter")
    page.get_by_role("navigation", name="Sheets of the set-out").get_by_role("link", name="Elevation").click()
    expect(page.get_by_text("Face A cannot be set out like that")).to_be_visible()
    expect(page.get_by_text(re.compile("no legal panel goes on from"))).to_be_visible()
    page.keyboard.press("ControlOrMeta+z")
    expect(page.get_by_text("Face A cannot be set out like that")).to_have_count(0)
    assert stored(board, server)["setout"]["heaviest"] is None


def test_timber_counts_as_it_is_set_out_by_one_click(board: Board, server: Server) -> None:
    page = board.page
    page.get_by_role("navigation", name="Sheets of the set-out").get_by_role("link", name="Timber").click()
    row = page.get_by_role("row").filter(has_text="Wall W-A")
    expect(row).to_contain_text("12.2 %")
    box = page.get_by_role("checkbox", name=re.compile("count as they are set out"))
    box.check()
    expect(page.locator(".ledger")).to_contain_text("Timber and seams by set-out")
    assert stored(board, server)["setout"]["counts"]
    field = page.get_by_label("longest that can be brought")
    field.fill("99 m")
    field.press("Enter")
    expect(page.get_by_text(re.compile("1 m to 30 m"))).to_be_visible()
    expect(field).to_have_value("99 m")


def test_panels_are_found_and_sorted_in_one_list(board: Board) -> None:
    page = board.page
    page.get_by_role("navigation", name="Sheets of the set-out").get_by_role("link", name="Panels").click()
    expect(page.get_by_role("status").filter(has_text="52 panels")).to_be_visible()
    page.get_by_role("region", name="Panels of the building").evaluate("(list) => list.scrollTo(0, 1e6)")
    page.get_by_role("searchbox", name="find").fill("W7")
    expect(page.get_by_role("cell", name="B-02", exact=True)).to_be_visible()
    expect(page.get_by_role("status").filter(has_text="1 panel")).to_be_visible()
    page.get_by_role("searchbox", name="find").fill("")
    page.get_by_role("button", name="mass").click()
    page.get_by_role("button", name="mass ↑").click()
    heaviest = page.get_by_role("row").nth(1)
    expect(heaviest).to_contain_text(re.compile(r"R[12]-0"))
    page.get_by_role("link", name=re.compile("^R1 ")).click()
    expect(page.get_by_role("group", name="Face R1 cut into panels")).to_be_visible()
    page.keyboard.press("f")
    expect(page.get_by_role("group", name="Face R2 cut into panels")).to_be_visible()


def test_what_an_engineer_states_is_entered_drawn_and_counted(board: Board, server: Server) -> None:
    """An anchor that meets a joint says so where it was entered; what cannot be read stays as it was typed."""
    page = board.page
    page.get_by_role("navigation", name="Sheets of the set-out").get_by_role("link", name="Fittings").click()
    page.get_by_role("button", name="Add sensor").click()
    expect(page.locator(".ledger")).to_contain_text("Sensor added")
    expect(page.get_by_role("textbox", name="identity, Sensor 3")).to_have_value("S3")
    places = page.get_by_role("textbox", name="or at, Anchor 2")
    places.fill("1200; some")
    places.press("Tab")
    expect(page.get_by_text("lengths, with ; between them")).to_be_visible()
    expect(places).to_have_value("1200; some")
    places.fill("1200")
    places.press("Tab")
    expect(page.locator(".ledger")).to_contain_text("Anchor 2 changed")
    expect(page.get_by_role("cell", name=re.compile("HD1 at 1.200 mm: .* stands nearer than 50 mm"))).to_be_visible()
    building = next(one for one in server.call("GET", f"/projects/{board.project}")["project"]["buildings"]
                    if one["id"] == "main-laboratory")  # fmt: skip
    assert building["setout"]["anchors"][1]["at"] == [1.2]
    page.get_by_role("link", name="Elevation").click()
    page.get_by_role("button", name=re.compile("^Length of joints of A")).click()
    expect(page.get_by_test_id("working")).to_contain_text("sum over joints")
