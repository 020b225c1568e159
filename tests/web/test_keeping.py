"""Nothing is lost: undo, redo, reload, a killed server, two windows, a deleted project, files in and out."""

from __future__ import annotations

import copy
import json
import re
from pathlib import Path
from typing import Any

import pytest
from playwright.sync_api import BrowserContext, Locator, Page, Route, expect
from web.board import Board, axe, visit
from web.copies import copied

from tools.window import Server


@pytest.fixture
def board(page: Page, server: Server, campus: str) -> Board:
    return Board(page, server.address, campus).open()


def test_undo_and_redo_and_reload(board: Board) -> None:
    kept = [board.text("R-combined")]
    for size in ("235", "140"):
        board.type_dimension("EPS with graphite", size)
        expect(board.last_edit()).to_contain_text(f"to {size} mm")
        board.settled()
        kept.append(board.text("R-combined"))
    board.page.locator("h1").click()
    board.page.keyboard.press("Escape")
    board.page.locator(".ledger .last button").click()
    board.done("Core 185 mm to 235 mm")
    assert board.text("R-combined") == kept[1]
    board.page.reload()
    board.settled()
    assert board.text("R-combined") == kept[1]
    board.page.keyboard.press("Control+Shift+Z")
    board.done("Core 235 mm to 140 mm")
    assert board.text("R-combined") == kept[2]
    board.page.keyboard.press("Control+z")
    board.done("Core 185 mm to 235 mm")
    board.page.keyboard.press("Control+z")
    expect(board.page.locator(".ledger .last")).to_contain_text("nothing to take back")
    board.settled()
    assert board.text("R-combined") == kept[0]


def test_undo_in_a_number_field_is_the_projects_unless_something_is_typed(board: Board) -> None:
    before = board.text("R-combined")
    board.type_dimension("EPS with graphite", "235")
    board.done("Core 185 mm to 235 mm")
    depth = board.page.get_by_test_id("probe").get_by_label("temperature at depth")
    depth.focus()
    depth.type("12")
    board.page.keyboard.press("Control+z")
    assert board.last_edit().inner_text().startswith("Core 185 mm to 235 mm")
    depth.fill("")
    depth.press("Escape")
    board.page.keyboard.press("Control+z")
    expect(board.page.locator(".ledger .last")).to_contain_text("nothing to take back")
    board.settled()
    assert board.text("R-combined") == before


def test_the_practice_keeps_its_own_targets_and_takes_them_in_another_project(board: Board) -> None:
    page = board.page
    board.open("main-laboratory/1")
    sets = page.get_by_test_id("target-sets")
    asked = page.get_by_label("clear-wall R of walls")
    asked.fill("6.25")
    asked.press("Enter")
    expect(board.last_edit()).to_contain_text("6.25")
    expect(sets.get_by_label("take a set of targets")).to_have_value("")
    sets.get_by_label("Name of the practice's set").fill("Estuary, usual")
    sets.get_by_role("button", name="Keep", exact=True).click()
    expect(sets.get_by_role("status")).to_contain_text("kept")
    expect(sets.get_by_label("take a set of targets")).to_have_value("Estuary, usual")
    sets.get_by_label("take a set of targets").select_option("example: hot")
    expect(asked).to_have_value("3.00")
    page.reload()
    sets.get_by_label("take a set of targets").select_option("Estuary, usual")
    expect(asked).to_have_value("6.25")
    sets.get_by_label("Name of the practice's set").fill("example: hot")
    sets.get_by_role("button", name="Keep", exact=True).click()
    expect(sets.get_by_role("alert")).to_contain_text("not the name of a shipped example")
    sets.get_by_role("button", name="No longer offer “Estuary, usual”").click()
    expect(sets.get_by_label("take a set of targets")).to_have_value("")
    expect(asked).to_have_value("6.25")


def test_a_killed_server_loses_nothing_and_the_window_goes_on(page: Page, own_server: Server) -> None:
    server = own_server
    board = Board(page, server.address, copied(server)).open()
    board.type_dimension("EPS with graphite", "235")
    board.done("Core 185 mm to 235 mm")
    server.kill()
    try:
        board.type_dimension("EPS with graphite", "285")
        trouble = board.page.locator(".trouble")
        expect(trouble).to_contain_text("The server does not answer")
        expect(board.dimension("EPS with graphite")).to_have_text("285")
    finally:
        server.start()
    trouble.get_by_role("button", name="Try again").click()
    board.done("Core 235 mm to 285 mm")
    stored = server.call("GET", f"/projects/{board.project}")
    assert [layer["d"] for layer in stored["project"]["assemblies"][0]["layers"] if layer.get("studied")] == [0.285]


def _elsewhere(board: Board) -> Locator:
    return board.page.locator(".ledger .last .elsewhere")


def test_another_window_sees_an_edit_marked_and_goes_on_from_it(
    board: Board, context: BrowserContext, server: Server
) -> None:
    other = Board(context.new_page(), server.address, board.project).open()
    other.type_dimension("EPS with graphite", "235")
    expect(_elsewhere(board)).to_have_text("Core 185 mm to 235 mm")
    expect(board.dimension("EPS with graphite")).to_have_text("235")
    expect(board.page.locator(".ledger .last")).to_contain_text("another window")
    board.type_dimension("EPS with graphite", "140")
    board.done("Core 235 mm to 140 mm")
    assert _elsewhere(board).count() == 0
    expect(_elsewhere(other)).to_have_text("Core 235 mm to 140 mm")


def test_what_is_being_typed_is_not_lost_to_another_window(
    board: Board, context: BrowserContext, server: Server
) -> None:
    other = Board(context.new_page(), server.address, board.project).open()
    board.dimension("EPS with graphite").first.click()
    field = board.page.get_by_role("textbox", name="Thickness of EPS with graphite")
    field.fill("140")
    other.type_dimension("EPS with graphite", "235")
    other.done("Core 185 mm to 235 mm")
    expect(_elsewhere(board)).to_have_text("Core 185 mm to 235 mm")
    expect(field).to_have_value("140")
    field.press("Enter")
    trouble = board.page.locator(".trouble")
    expect(trouble.or_(board.last_edit().filter(has_text="to 140 mm"))).to_be_visible()
    if trouble.count():
        trouble.get_by_role("button", name="Save mine over it").click()
    board.settled()
    assert _core(server, board) == 0.14


def test_the_second_writer_is_told_and_decides(board: Board, server: Server) -> None:
    """A window that the stream does not reach still does not write over what it has not seen."""
    board.page.context.route("**/api/v1/projects/*/events*", lambda route: route.abort())
    board.open(anew=True)
    _type_elsewhere(server, board, 0.235)
    board.type_dimension("EPS with graphite", "140")
    trouble = board.page.locator(".trouble")
    expect(trouble).to_contain_text("Not saved: Core 185 mm to 140 mm")
    assert _core(server, board) == 0.235
    trouble.get_by_role("button", name="Load the newer version").click()
    expect(board.dimension("EPS with graphite")).to_have_text("235")
    board.settled()
    _type_elsewhere(server, board, 0.285)
    board.type_dimension("EPS with graphite", "90")
    trouble.get_by_role("button", name="Save mine over it").click()
    board.done("Core 235 mm to 90 mm")
    assert _core(server, board) == 0.09


def test_what_fails_after_the_window_went_on_is_said_where_it_went(board: Board) -> None:
    page = board.page

    def lost_on_the_way(route: Route) -> None:
        visit(page, board.address, "")
        route.abort()

    page.route("**/api/v1/projects/*/edit*", lost_on_the_way, times=1)
    board.type_dimension("EPS with graphite", "140")
    said = page.locator(".unsaved")
    expect(said).to_contain_text("Core 185 mm to 140 mm. The server does not answer.")
    expect(page.get_by_role("heading", name="Projects")).to_be_visible()
    assert axe(page) == []
    said.get_by_role("button", name="Go back to that project").click()
    board.settled()
    expect(said).to_have_count(0)
    expect(board.dimension("EPS with graphite")).to_have_text("185")


def _core(server: Server, board: Board) -> float:
    wall = server.call("GET", f"/projects/{board.project}")["project"]["assemblies"][0]
    return float(next(layer["d"] for layer in wall["layers"] if layer.get("studied")))


def _type_elsewhere(server: Server, board: Board, d: float) -> None:
    """Another program writes the core's thickness."""
    stored = server.call("GET", f"/projects/{board.project}")
    wall = {**stored["project"]["assemblies"][0]}
    wall.pop("fixings", None)
    wall["layers"] = [{**layer, "d": d} if layer.get("studied") else layer for layer in wall["layers"]]
    item = {"kind": "assembly", "owner": "", "id": wall["id"], "read": stored["revision"], "document": wall}
    body = {"text": "core written elsewhere", "zone": "D2", "items": [item]}
    server.call("POST", f"/projects/{board.project}/edit", body)


def test_a_project_deleted_in_another_window_can_be_brought_back(board: Board, server: Server) -> None:
    server.call("DELETE", f"/projects/{board.project}")
    board.type_dimension("EPS with graphite", "235")
    trouble = board.page.locator(".trouble")
    expect(trouble).to_contain_text("Not saved")
    with board.page.expect_download() as kept:
        trouble.get_by_role("button", name="Keep what this window holds as a file").click()
    held = json.loads(Path(kept.value.path()).read_text())
    assert held["project"]["assemblies"][0]["layers"][3]["d"] == 0.235
    trouble.get_by_role("button", name="Bring the project back").click()
    board.done("Core 185 mm to 235 mm")


def test_a_project_goes_out_as_a_file_and_comes_in_again(board: Board, server: Server, tmp_path: Path) -> None:
    page = board.page
    page.keyboard.press("1")
    with page.expect_download() as download:
        page.get_by_role("link", name="Export project, JSON").click()
    file = tmp_path / "project.json"
    download.value.save_as(file)
    page.get_by_label("Project file to import").set_input_files(file)
    page.wait_for_url(re.compile(rf"/(?!{board.project})[0-9a-f]{{16}}/"))
    board.settled()
    brought = server.call("GET", f"/projects/{page.url.split('/')[3]}/file")
    original = json.loads(file.read_text())
    brought["project"]["id"] = original["project"]["id"]
    assert brought == original


def _wrong(change: str, project: Any) -> bytes:
    broken = copy.deepcopy(project)
    if change == "future":
        broken["version"] = 99
    elif change == "negative":
        broken["project"]["assemblies"][0]["layers"][3]["d"] = -0.1
    elif change == "humid":
        broken["project"]["basis"]["indoor"]["phi_heating"] = 1.3
    elif change == "not json":
        return b"{ this is no JSON"
    return json.dumps(broken).encode()


@pytest.mark.parametrize(
    ("change", "words"),
    [("future", "99"), ("negative", "layers/3/d"), ("humid", "130 %"), ("not json", "not readable as JSON")],
)
def test_a_wrong_file_is_told_with_its_place(board: Board, server: Server, change: str, words: str) -> None:
    project = server.call("GET", f"/projects/{board.project}/file")
    project["project"]["name"] = "Not to be taken"
    file = {"name": "wrong.json", "mimeType": "application/json", "buffer": _wrong(change, project)}
    board.page.get_by_label("Project file to import").set_input_files(file)  # type: ignore[arg-type]
    notice = board.page.get_by_role("alert").filter(has_text="The file was not imported")
    expect(notice).to_contain_text(words)
    assert "Not to be taken" not in {one["name"] for one in server.call("GET", "/projects")}


def test_a_file_of_200_megabytes_is_refused_before_it_is_read(board: Board, tmp_path: Path) -> None:
    file = tmp_path / "large.json"
    with file.open("wb") as out:
        out.truncate(200 * 1024**2)
    board.page.get_by_label("Project file to import").set_input_files(file)
    expect(board.page.get_by_role("alert").first).to_contain_text("200 MB")


def test_the_specification_sheet_is_a_pdf(board: Board) -> None:
    with board.page.expect_download() as download:
        board.page.get_by_role("link", name="Specification sheet, PDF").click()
    assert download.value.suggested_filename == "Wall W-A.pdf"
    assert Path(download.value.path()).read_bytes().startswith(b"%PDF-")


def test_an_address_of_nothing_says_so(page: Page, server: Server) -> None:
    page.goto(f"{server.address}/no-such-project/x/D2")
    expect(page.get_by_role("alert").first).to_contain_text("Not saved: open the project")
    page.get_by_role("button", name="All projects").first.click()
    expect(page.get_by_role("heading", name="Projects")).to_be_visible()
