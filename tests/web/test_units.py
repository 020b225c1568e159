"""Types of windows and doors: what they come to, how they are changed, and the openings that follow them."""

from __future__ import annotations

from typing import Any

import pytest
from playwright.sync_api import Page, expect
from web.board import Board, number
from web.test_shape import stored, taken

from tools.window import Server, quiet

SHEET = "main-laboratory/1?view=units"


@pytest.fixture
def board(page: Page, server: Server, shaped: str) -> Board:
    found = Board(page, server.address, shaped).open(SHEET)
    expect(page.get_by_role("heading", name="Windows and doors")).to_be_visible()
    expect(row(page, "Laboratory window")).to_contain_text("by its parts")
    return found


def row(page: Page, name: str) -> Any:
    return page.get_by_test_id("unit-types").get_by_role("row").filter(has_text=name)


def U(page: Page, name: str) -> float:
    return number(row(page, name).get_by_role("button", name="show working").inner_text())


def field(page: Page, label: str) -> Any:
    return page.get_by_test_id("unit-form").get_by_label(label, exact=True)


def test_better_glass_is_previewed_taken_counted_and_undone(board: Board, server: Server) -> None:
    page = board.page
    before = U(page, "Laboratory window")
    field(page, "U of the glass").fill("0.4")
    expect(row(page, "Laboratory window")).not_to_contain_text(f"{before:.3f}")
    assert before - U(page, "Laboratory window") == pytest.approx(0.2 * 1.3569 / 2.1, abs=2e-3)
    project = server.call("GET", f"/projects/{board.project}/file")["project"]
    assert project["units"][0]["glass"]["U"] == 0.6
    field(page, "U of the glass").press("Enter")
    taken(board, "Laboratory window: U of the glass")
    row(page, "Laboratory window").get_by_role("button", name="show working").click()
    expect(page.get_by_test_id("working")).to_contain_text("ISO 10077-1")
    page.keyboard.press("Escape")
    page.keyboard.press("Control+z")
    expect(page.locator(".ledger .last")).to_contain_text("nothing to take back")
    expect(row(page, "Laboratory window")).to_contain_text(f"{before:.3f}")


def test_a_new_size_is_given_to_its_openings_and_what_cannot_be_built_is_refused(board: Board, server: Server) -> None:
    page = board.page
    field(page, "width").fill("1200")
    field(page, "width").press("Enter")
    taken(board, "Laboratory window: width")
    expect(row(page, "Laboratory window")).to_contain_text("10 of another size")
    page.get_by_role("button", name="Give them this size").click()
    taken(board, "Laboratory window: size of")
    found = [one for one in stored(server, board)["openings"] if one["unit"] == "laboratory"]
    assert {one["w"] for one in found} == {1.2}
    assert next(one for one in found if one["mark"] == "W1")["u"] == pytest.approx(1.35)  # its middle stays
    field(page, "mullion, visible").fill("1100")
    expect(page.get_by_text("This cannot be built. The stored type stands.")).to_be_visible()
    field(page, "mullion, visible").press("Escape")
    page.get_by_role("button", name="Remove Laboratory window").click()
    expect(page.get_by_text("the type is used by").first).to_be_visible()


def test_what_is_typed_as_it_is_shown_is_taken_though_it_is_previewed(board: Board, server: Server) -> None:
    page = board.page
    field(page, "sill above the floor").fill("936")
    expect(page.get_by_test_id("unit-form").locator("[data-entry=typing]")).to_have_count(1)
    field(page, "sill above the floor").press("Enter")
    taken(board, "Laboratory window: sill above the floor")
    project = server.call("GET", f"/projects/{board.project}/file")["project"]
    assert project["units"][0]["sill"] == 0.936
    field(page, "sill above the floor").fill("950")
    field(page, "sill above the floor").fill("936")  # back at what stands: nothing to take
    field(page, "sill above the floor").press("Enter")
    quiet(page)
    expect(board.last_edit()).to_have_text("Laboratory window: sill above the floor")
    board.open("main-laboratory/1?view=shape")
    page.get_by_test_id("openings").get_by_role("button", name="W7", exact=True).click()
    sill = page.get_by_label("sill above the floor", exact=True)
    sill.fill("850")
    expect(page.locator(".mast ins").or_(page.get_by_text("Take it")).first).to_be_visible()
    sill.press("Enter")
    taken(board, "W7: sill above the floor")


def test_a_type_is_added_and_an_opening_is_filled_with_it(board: Board, server: Server) -> None:
    page = board.page
    page.get_by_role("button", name="Add a type").click()
    expect(row(page, "Type 5")).to_be_visible()
    field(page, "frame").select_option("timber-foam")
    expect(field(page, "U of the frame")).to_have_value("0.850")
    field(page, "name").fill("Wide light")
    field(page, "name").press("Enter")
    taken(board, "Type 5: name")
    board.open("main-laboratory/1?view=shape")
    page.get_by_test_id("openings").get_by_role("button", name="W7", exact=True).click()
    page.get_by_label("type", exact=True).select_option(label="Wide light")
    taken(board, "W7: Wide light")
    (opening,) = [one for one in stored(server, board)["openings"] if one["mark"] == "W7"]
    assert (opening["w"], opening["h"]) == (1.2, 1.3)
