"""The whole shell: where the heat goes, what leaks, what its plant has to be, and measures that are built and undone."""

from __future__ import annotations

import re
from typing import Any

import pytest
from playwright.sync_api import Page, expect
from web.board import Board, number

from tools.window import Server, quiet

HERE = "main-laboratory/D7"


@pytest.fixture
def board(page: Page, server: Server, shaped: str) -> Board:
    return Board(page, server.address, shaped).open(HERE)


def sheet(board: Board, name: str) -> Page:
    board.page.get_by_role("navigation", name="Sheets of the whole shell").get_by_role(
        "link", name=name, exact=True
    ).click()
    return board.page


def typed(page: Page, label: str | re.Pattern[str], value: str) -> Any:
    field = page.get_by_label(label, exact=True)
    field.fill(value)
    field.press("Enter")
    return field


def test_every_loss_hangs_from_its_place_and_leads_there(board: Board, server: Server) -> None:
    page = board.page
    rows = page.get_by_test_id("losses").get_by_role("row")
    expect(rows.filter(has_text="Wall W-A")).to_contain_text("177.0 m²")
    expect(page.get_by_role("img", name="Section of the building with its stations")).to_be_visible()
    expect(page.get_by_test_id("part")).to_contain_text("missing")
    found = server.call("GET", f"/projects/{board.project}/buildings/main-laboratory/whole")
    assert number(page.get_by_test_id("whole-sums").locator("b").first.inner_text()) == pytest.approx(
        found["sums"]["H"], abs=0.06
    )
    page.get_by_role("button", name="by loss").click()
    losses = [number(one) for one in page.get_by_test_id("losses").locator("td.bar b").all_inner_texts()]
    assert losses == sorted(losses, key=abs, reverse=True)
    page.get_by_role("button", name=re.compile("^Heat loss.*show working")).last.click()
    expect(page.get_by_test_id("working")).to_contain_text("ISO 13789")
    page.keyboard.press("Escape")
    page.get_by_test_id("losses").get_by_role("link", name="SIP roof R-A", exact=True).click()
    expect(page).to_have_url(re.compile("/B2"))


def test_the_air_that_is_asked_for_is_judged_everywhere_alike(board: Board) -> None:
    page = sheet(board, "Air")
    expect(page.get_by_test_id("n50-verdict")).to_contain_text("needs a decision")
    expect(page.get_by_test_id("leakage")).to_contain_text("%")
    assert number(page.get_by_test_id("leakage").locator("b").inner_text()) > 100
    typed(page, "n50 asked", "3")
    expect(page.get_by_test_id("n50-verdict")).not_to_contain_text("needs a decision")
    assert number(page.get_by_test_id("leakage").locator("b").inner_text()) < 100
    field = typed(page, "flow exponent n", "0.2")
    expect(page.get_by_role("alert").first).to_contain_text("0.2")
    expect(field).to_have_value("0.2")


def test_a_fire_in_the_tight_room_says_what_keeps_it_safe(board: Board) -> None:
    page = sheet(board, "Air")
    typed(page, "extract of the hood", "400")
    page.get_by_label("a fire takes its air from the room").check()
    expect(page.get_by_test_id("draught")).to_contain_text("make-up opening")
    expect(page.get_by_text("Combustion in a tight room can kill")).to_be_visible()


def test_the_room_follows_its_ventilation_and_is_given_back(board: Board, server: Server) -> None:
    page = sheet(board, "Fresh air")
    page.get_by_role("button", name="Let the room of step 5 follow it").click()
    expect(page.get_by_text("The room of step 5 follows it")).to_be_visible()
    stored = server.call("GET", f"/projects/{board.project}")["project"]["buildings"][0]
    assert stored["indoor"]["regime"] == "production"
    page.keyboard.press("Control+z")
    expect(page.get_by_role("button", name="Let the room of step 5 follow it")).to_be_visible()
    typed(page, "intake and exhaust apart", "1")
    expect(page.get_by_test_id("apart")).to_contain_text("used air would come back")


def test_vents_by_height_cool_the_room_that_is_left_alone(board: Board) -> None:
    page = sheet(board, "Loads")
    venting, peak = page.get_by_test_id("venting"), page.get_by_test_id("cooling").locator("button b").inner_text()
    known = re.compile(r"reaches ([\d.]+) °C in the place of ([\d.]+) °C")
    vented, closed = (float(one) for one in re.findall(known, venting.inner_text())[0])
    assert vented < closed
    field = typed(page, "high opening, free", "-1")
    expect(page.get_by_role("alert").first).to_contain_text("-1")
    field.press("Escape")
    typed(page, "high opening, free", "3")
    expect(venting).not_to_contain_text(f"reaches {vented} °C")
    assert float(re.findall(known, venting.inner_text())[0][0]) < vented
    assert page.get_by_test_id("cooling").locator("button b").inner_text() == peak
    venting.get_by_role("button", name=re.compile("Air through the vents")).click()
    expect(page.get_by_test_id("working")).to_contain_text("mass balance of two openings")
    page.keyboard.press("Escape")
    typed(page, "low opening, free", "0")
    expect(venting).to_contain_text("None: both openings")


def test_loads_stand_beside_the_rule_and_shade_lowers_them(board: Board) -> None:
    page = sheet(board, "Loads")
    cooling = page.get_by_test_id("cooling")
    expect(cooling).to_contain_text("times as much")
    before = number(cooling.locator("button b").inner_text())
    typed(page, "sun that shades let in", "10")
    expect(cooling.get_by_role("button")).not_to_contain_text(f"{before:.0f}"[-3:])
    assert number(cooling.locator("button b").inner_text()) < before
    with page.expect_download() as download:
        page.get_by_role("link", name="Statement for the plant contractor, PDF").click()
    assert download.value.suggested_filename == "Main Laboratory-plant.pdf"


def test_measures_are_picked_built_in_one_action_and_undone_in_one(page: Page, server: Server, jointed: str) -> None:
    board = Board(page, server.address, jointed).open(HERE + "?view=measures")
    row = page.get_by_test_id("measures").get_by_role("row").filter(has_text="core of 235 mm")
    expect(row.get_by_role("checkbox")).to_be_enabled(timeout=120_000)
    row.get_by_role("checkbox").check()
    page.get_by_test_id("measures").get_by_role("row").filter(has_text="recovers 85 %").get_by_role("checkbox").check()
    expect(page.get_by_test_id("together")).to_contain_text("One by one they would come to", timeout=60_000)
    expect(
        page.get_by_test_id("states").get_by_role("columnheader", name="with the measures that are picked")
    ).to_be_visible()
    page.get_by_role("button", name="Build with what is picked").click()
    expect(board.last_edit()).to_have_text("2 measures")
    built = server.call("GET", f"/projects/{jointed}")["project"]["buildings"][0]
    assert built["plant"]["air"]["eta_t"] == 0.85
    page.keyboard.press("Control+z")
    expect(board.last_edit()).not_to_have_text("2 measures")
    expect(row).to_be_visible(timeout=60_000)
    assert server.call("GET", f"/projects/{jointed}")["project"]["buildings"][0]["plant"]["air"]["eta_t"] == 0.8


def test_windows_are_set_where_their_edge_loses_least(page: Page, server: Server, jointed: str) -> None:
    board = Board(page, server.address, jointed).open(HERE + "?view=windows")
    place = page.get_by_test_id("window-place")
    expect(place).to_contain_text(re.compile(r"at its best about [\d.]+ W/K"), timeout=120_000)
    expect(page.get_by_test_id("break-even")).to_contain_text("glazing the walls are as a plain framed wall")
    whole = server.call("GET", f"/projects/{jointed}/buildings/main-laboratory/glazing")
    assert whole["lacking"] == []
    share = next(one["break_even"] for one in whole["orientations"] if one["azimuth"] is None)
    expect(page.get_by_test_id("break-even")).to_contain_text(f"At {100 * share:.0f} % glazing")
    now, best = (number(one) for one in re.findall(r"(?:Now|about) ([\d.]+)", place.inner_text()))
    assert best < now
    slider = place.get_by_role("slider")
    slider.fill("0.35")
    expect(board.last_edit()).to_contain_text("place in the wall's depth 35")
    quiet(page)
    expect(place).to_contain_text(re.compile(r"Now [\d.]+ W/K"), timeout=60_000)
    moved = re.search(r"Now ([\d.]+)", place.inner_text())
    assert moved is not None
    assert number(moved[1]) == pytest.approx(best, rel=0.05)
    page.keyboard.press("Control+z")
    expect(board.last_edit()).not_to_contain_text("place in the wall")
    expect(slider).to_have_value("1")


def ask_for_what_some_measures_reach(server: Server, project: str) -> None:
    """So that sets are re-run for some seconds."""
    H = server.call("GET", f"/projects/{project}/buildings/main-laboratory/whole")["sums"]["H_tr"]
    stored = server.call("GET", f"/projects/{project}")
    basis, own = stored["project"]["basis"], stored["project"]["buildings"][0]
    basis["targets"]["R_shell"] = None
    own["asked_H"], own["plant"]["tightness"]["n50_asked"] = 0.95 * H, None
    items = [
        {"kind": "basis", "id": "", "read": stored["revision"], "document": basis},
        {"kind": "building", "id": own["id"], "read": stored["revision"], "document": own},
    ]
    server.call("POST", f"/projects/{project}/edit", {"text": "asked of it", "items": items})


def test_what_is_good_enough_is_stopped_asked_again_and_ends_with_an_edit(
    page: Page, server: Server, jointed: str
) -> None:
    board = Board(page, server.address, jointed).open(HERE + "?view=measures")
    ask, found = page.get_by_role("button", name="What is good enough?"), page.get_by_test_id("enough")
    row = page.get_by_test_id("measures").get_by_role("row").filter(has_text="core of 235 mm")
    expect(row.get_by_role("checkbox")).to_be_enabled(timeout=120_000)
    ask_for_what_some_measures_reach(server, jointed)
    expect(board.last_edit()).to_have_text("asked of it")
    quiet(page)
    ask.click()
    expect(page.get_by_role("status", name=re.compile("re-run \\d+ of at most"))).to_be_visible()
    page.get_by_role("button", name="Stop the search for what is good enough").click()
    expect(page.get_by_role("alert")).to_contain_text("stopped")
    expect(found).to_have_count(0)
    ask.click()
    expect(found).to_be_visible(timeout=60_000)
    typed(page, re.compile("^cost of .*core of 235 mm"), "12345")
    expect(board.last_edit()).to_have_text("Cost of a measure")
    expect(found).to_have_count(0)
