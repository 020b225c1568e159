"""The build-up bench in a real browser: drawn, dragged, typed, and every figure follows."""

from __future__ import annotations

from typing import Any

import pytest
from playwright.sync_api import Page, expect
from web.board import Board, number

from tools.window import Server


@pytest.fixture
def board(page: Page, server: Server, campus: str) -> Board:
    return Board(page, server.address, campus).open()


def core(server: Server, board: Board) -> float:
    layers = server.call("GET", f"/projects/{board.project}")["project"]["assemblies"][0]["layers"]
    return float(next(layer["d"] for layer in layers if layer.get("studied")))


def answer(server: Server, board: Board) -> Any:
    """What the server says of the wall as stored."""
    wall = server.call("GET", f"/projects/{board.project}")["project"]["assemblies"][0]
    body = {"building_id": "main-laboratory", "condition": "0", "assembly": wall}
    return server.call("POST", f"/projects/{board.project}/bench", body)


def every_figure_is(board: Board, found: Any) -> None:
    """Each displayed figure is the server's, to its last digit."""
    shown = {key: figure["value"] for key, figure in found["figures"].items()}
    for kind in ("nominal", "parallel", "isothermal", "combined"):
        assert board.R(kind) == pytest.approx(shown[f"R_{kind}"], abs=0.00501)
    assert board.fact("weight") == pytest.approx(shown["weight"], abs=0.0501)
    assert board.fact("thickness") == pytest.approx(1000 * shown["thickness"], abs=0.0501)
    assert board.fact("cost") == pytest.approx(shown["cost"], abs=0.00501)
    assert board.fact("q") == pytest.approx(shown["q"], abs=0.00501)
    assert board.ledger("H_shell") == pytest.approx(found["consequence"]["now"]["H"], abs=0.0501)
    assert board.ledger("R_effective") == pytest.approx(found["consequence"]["now"]["R_effective"], abs=0.00501)
    for season in ("winter", "summer"):
        row = board.page.locator(".seasons tr", has_text=season.capitalize())
        values = [number(text) for text in row.locator("b").all_inner_texts()]
        wanted = [shown[f"R_{season}"], shown[f"R_{season}_clear"], shown[f"U_{season}_clear"]]
        assert values == pytest.approx(wanted, abs=0.00501)
    present = board.page.get_by_test_id("study").locator("td.on")
    assert number(present.nth(0).inner_text()) == pytest.approx(1000 * found["study"]["present"]["d"], abs=0.0501)
    assert number(present.nth(1).inner_text()) == pytest.approx(found["study"]["present"]["R_clear"], abs=0.00501)
    dimension = board.dimension("EPS with graphite").inner_text()
    assert number(dimension) == pytest.approx(1000 * found["study"]["present"]["d"], abs=0.0501)


def test_a_drag_of_200_steps_ends_with_every_figure_of_the_newest_input(board: Board, server: Server) -> None:
    page = board.page
    grip = page.locator(".handle.on .grip").bounding_box()
    assert grip
    x, y = grip["x"] + grip["width"] / 2, grip["y"] + grip["height"] / 2
    before = page.get_by_test_id("temperature-line").get_attribute("d")
    page.mouse.move(x, y)
    page.mouse.down()
    for step in range(200):
        page.mouse.move(x + 60 * (step % 40) / 40 + step * 0.15, y)
    during = page.get_by_test_id("R-combined").inner_text()
    page.mouse.up()
    expect(board.last_edit()).to_contain_text("Core 185 mm to ")
    board.settled()
    assert during
    assert core(server, board) != 0.185
    every_figure_is(board, answer(server, board))
    assert page.get_by_test_id("temperature-line").get_attribute("d") != before
    assert page.get_by_test_id("vapour-line").get_attribute("d")
    kept = [board.text(f"R-{kind}") for kind in ("nominal", "parallel", "isothermal", "combined")]
    page.reload()
    board.settled()
    assert [board.text(f"R-{kind}") for kind in ("nominal", "parallel", "isothermal", "combined")] == kept
    every_figure_is(board, answer(server, board))
    # the whole drag is one step to take back
    page.keyboard.press("Control+z")
    page.wait_for_function("() => document.querySelector('.ledger .last p')?.textContent?.includes('nothing')")
    board.settled()
    assert core(server, board) == 0.185


def test_figures_follow_while_the_hand_still_drags(board: Board, server: Server) -> None:
    page = board.page
    start = board.R()
    grip = page.locator(".handle.on .grip").bounding_box()
    assert grip
    page.mouse.move(grip["x"] + 4, grip["y"] + 14)
    page.mouse.down()
    page.mouse.move(grip["x"] + 84, grip["y"] + 14, steps=10)
    page.wait_for_function(
        "(start) => document.querySelector('[data-testid=R-combined]').textContent.trim() !== start", arg=f"{start:.2f}"
    )
    expect(page.locator(".ledger .last small")).to_have_text("Preview, not saved yet")
    assert core(server, board) == 0.185
    page.mouse.up()
    board.settled()
    assert board.R() > start


def test_a_thickness_is_typed_on_its_dimension(board: Board, server: Server) -> None:
    was = "185 mm"
    for typed, metres, now in (
        ("235", 0.235, "235 mm"),
        ("0.2 m", 0.2, "200 mm"),
        ("7.25in", 0.18415, "184.2 mm"),
        ("0' 8 3/8\"", 0.212725, "212.7 mm"),
        ("7 1/4", 0.18415, "184.2 mm"),
        ("140+45.5", 0.1855, "185.5 mm"),
    ):
        board.type_dimension("EPS with graphite", typed)
        board.done(f"Core {was} to {now}")
        assert core(server, board) == pytest.approx(metres, rel=1e-12), typed
        was = now
    every_figure_is(board, answer(server, board))


@pytest.mark.parametrize("typed", ["0", "-20", "thick", "4000"])
def test_a_thickness_that_cannot_be_is_refused_where_it_was_typed(board: Board, server: Server, typed: str) -> None:
    board.type_dimension("EPS with graphite", typed)
    expect(board.page.get_by_role("alert").first).to_be_visible()
    assert core(server, board) == 0.185


def test_arrow_keys_change_the_chosen_layer(board: Board, server: Server) -> None:
    board.choose(4)
    board.page.keyboard.press("ArrowUp")
    board.page.keyboard.press("Shift+ArrowUp")
    board.page.keyboard.press("Control+ArrowDown")
    expect(board.last_edit()).to_contain_text(" to 239 mm")  # a slow machine makes two edits of a slow hand
    board.settled()
    assert core(server, board) == pytest.approx(0.239)
    every_figure_is(board, answer(server, board))


def test_a_material_is_swapped(board: Board) -> None:
    before = board.R()
    board.bar.get_by_label("Material of layer 4").select_option("pir-core")
    board.done("EPS with graphite to PIR, panel core")
    assert board.R() > before
    expect(board.page.locator(".seasons")).to_contain_text("Fresh foam")


def test_layers_are_added_moved_and_removed(board: Board) -> None:
    names = board.layers()
    board.choose(1)
    board.bar.get_by_role("button", name="Add layer inside").click()
    board.done("Gypsum board added")
    assert board.layers() == [*names, "Gypsum board"]
    board.bar.get_by_role("button", name="Move outwards").click()
    board.done("Gypsum board moved outwards")
    assert board.layers() == [*names[:-1], "Gypsum board", names[-1]]
    board.bar.get_by_role("button", name="Remove layer").click()
    board.done("Gypsum board removed")
    assert board.layers() == names


def test_the_bridging_is_given_by_centres_or_by_share(board: Board) -> None:
    before = board.R()
    centres = board.bar.get_by_label("Centres of spline")
    centres.fill("600")
    centres.press("Enter")
    board.done("Centres of spline")
    closer = board.R()
    assert closer < before
    board.bar.get_by_label("How spline is given").select_option("share")
    board.done("spline by area share")
    share = board.bar.get_by_label("Share of spline")
    share.fill("2")
    share.press("Enter")
    board.done("Share of spline")
    assert board.R() > before
    share.fill("140")
    share.press("Enter")
    expect(board.bar.get_by_role("alert").first).to_contain_text("140 %")
    board.bar.get_by_role("button", name="Remove spline").click()
    board.done("spline removed")


def test_a_lambda_is_entered_and_given_back(board: Board) -> None:
    before = board.text("R-nominal")
    entry = board.bar.get_by_label("λ", exact=True)
    entry.fill("0.025")
    entry.press("Enter")
    board.done("λ of EPS with graphite entered")
    assert board.text("R-nominal") != before
    entry.fill("0")
    entry.press("Enter")
    expect(board.bar.get_by_role("alert").first).to_contain_text("above 0")
    entry.fill("")
    entry.press("Enter")
    board.done("λ of EPS with graphite as catalogued")
    assert board.text("R-nominal") == before


def test_the_study_says_what_would_reach_the_target_and_is_adopted(board: Board, server: Server) -> None:
    page = board.page
    decision = page.locator(".notice.decision")
    expect(decision).to_contain_text("short of the asked 5.60")
    page.get_by_role("button", name="Adopt 235 mm").click()
    board.done("Core 185 mm to 235 mm")
    expect(decision).to_have_count(0)
    assert board.R() >= 5.6
    exact = number(page.get_by_test_id("d-asked").inner_text().replace("mm", ""))
    wall = server.call("GET", f"/projects/{board.project}")["project"]["assemblies"][0]
    next(layer for layer in wall["layers"] if layer.get("studied"))["d"] = exact / 1000
    body = {"building_id": "main-laboratory", "condition": "0", "assembly": wall}
    at_exact = server.call("POST", f"/projects/{board.project}/bench", body)
    assert at_exact["figures"]["R_clear"]["value"] == pytest.approx(5.6, abs=0.003)
    page.goto(page.url.replace("/D2", "/1"))
    page.get_by_role("button", name="IP", exact=True).click()
    expect(board.last_edit()).to_have_text('Core 7 5/16" to 9 1/4"')  # what was done is told to who reads it


def test_the_lines_follow_the_month(board: Board) -> None:
    page = board.page
    january = page.get_by_test_id("vapour-line").get_attribute("d")
    page.get_by_label("At", exact=True).select_option("6")
    page.wait_for_function(
        "(old) => document.querySelector('[data-testid=vapour-line]').getAttribute('d') !== old", arg=january
    )
    expect(page.locator(".conditions")).to_contain_text("20.9 °C")
    page.keyboard.press("Escape")
    page.locator("h1").click()


def test_inch_pound_changes_every_figure_and_drawing(board: Board) -> None:
    si = board.R()
    board.page.get_by_role("group", name="Units").get_by_role("button", name="IP").click()
    expect(board.dimension("EPS with graphite")).to_have_text('7 5/16"')
    board.settled()
    assert board.R() == pytest.approx(si * 5.678263, abs=0.06)
    expect(board.page.locator(".ledger")).to_contain_text("h·ft²·°F/Btu")


def test_a_build_up_is_renamed_with_markup_in_its_name(board: Board) -> None:
    page = board.page
    page.get_by_role("button", name="Wall W-A, rename").click()
    field = page.get_by_role("textbox", name="Name of the build-up")
    field.fill('<img src=x onerror="document.title=1"> & Co')
    field.press("Enter")
    expect(page.locator("h1")).to_have_text('<img src=x onerror="document.title=1"> & Co')
    expect(page.locator("h1 img")).to_have_count(0)
