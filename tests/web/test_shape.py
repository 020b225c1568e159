"""The shape sheet: drawn, dragged, typed, taken and given back; and a project from one sheet."""

from __future__ import annotations

import re
from pathlib import Path
from typing import Any

import pytest
from playwright.sync_api import Page, Route, expect
from web.board import Board, number

from tools.window import ROOT, Server

LAB = "main-laboratory"
READ_MS = 60_000  #: a file is read in a process that begins for it


@pytest.fixture
def board(page: Page, server: Server, shaped: str) -> Board:
    found = Board(page, server.address, shaped).open(f"{LAB}/1?view=shape")
    expect(page.get_by_role("heading", name="Shape", exact=True)).to_be_visible()
    expect(page.get_by_test_id("quantity-e2")).to_be_visible()
    return found


def stored(server: Server, board: Board, building: str = LAB) -> dict[str, Any]:
    file = server.call("GET", f"/projects/{board.project}/file")
    found: dict[str, Any] = next(one for one in file["project"]["buildings"] if one["id"] == building)
    return found


def taken(board: Board, words: str) -> None:
    """What was drawn is saved, in these words."""
    expect(board.page.locator(".ledger .last small")).to_have_text("Last edit")
    expect(board.last_edit()).to_contain_text(words)


def area(page: Page, element: str = "e2") -> float:
    return number(page.get_by_test_id(f"quantity-{element}").locator("input").input_value().split(" m")[0])


def side(page: Page, n: int) -> Any:
    return page.get_by_role("button", name=re.compile(f"^Side {n} of Laboratory"))


def test_a_drag_of_200_steps_previews_the_mast_and_the_ledger_and_is_one_edit(board: Board, server: Server) -> None:
    page = board.page
    before = area(page)
    box = side(page, 3).bounding_box()
    assert box
    x, y = box["x"] + box["width"] / 2, box["y"] + box["height"] / 2
    page.mouse.move(x, y)
    page.mouse.down()
    for step in range(200):
        page.mouse.move(x + step % 7, y - step * 0.12)
    expect(page.locator(".mast ins").first).to_contain_text("+")
    expect(page.locator(".ledger .last small")).to_have_text("Preview, not saved yet")
    assert stored(server, board)["bodies"][0]["outline"][2] == [12.0, 8.4]
    page.mouse.up()
    taken(board, "Laboratory: side 3 moved")
    outline = stored(server, board)["bodies"][0]["outline"]
    deep = outline[2][1]
    assert outline == [[0.0, 0.0], [12.0, 0.0], [12.0, deep], [0.0, deep]]
    assert deep % 0.6 == pytest.approx(0.0, abs=1e-6) or (deep / 0.005) % 1 == pytest.approx(0.0, abs=1e-6)
    assert deep > 8.4
    assert area(page) > before
    page.keyboard.press("Control+z")
    expect(page.locator(".ledger .last")).to_contain_text("nothing to take back")
    assert stored(server, board)["bodies"][0]["outline"][2] == [12.0, 8.4]


def test_a_length_is_typed_on_the_plan_and_the_module_speaks(board: Board, server: Server) -> None:
    page = board.page
    for typed, long in (
        ("+300", 8.7), ("7 1/4 modules", 8.7), ("8 700", 8.7), ("28' 6 1/2\"", 8.6995), ("8.7m", 8.7)
    ):  # fmt: skip
        page.get_by_role("button", name="type the length of side 2").first.click()
        field = page.get_by_role("textbox", name="Length of side 2")
        field.fill(typed)
        spoken = page.get_by_test_id("side-entry")
        expect(spoken).to_contain_text("7 1/4 modules")
        expect(spoken.get_by_role("button", name=re.compile("^9.600$"))).to_be_visible()
        field.press("Enter")
        expect(spoken).to_have_count(0)
        taken(board, "side 2")
        assert stored(server, board)["bodies"][0]["outline"][2] == [12.0, pytest.approx(long)], typed


def test_escape_goes_back_and_a_crossing_plan_is_refused_where_it_is_drawn(board: Board, server: Server) -> None:
    page = board.page
    page.get_by_role("button", name="type the length of side 1").first.click()
    field = page.get_by_role("textbox", name="Length of side 1")
    field.fill("abc")
    expect(page.get_by_role("alert")).to_contain_text("8 400, 8.4m")
    field.fill("13 000")
    expect(page.locator(".mast ins").first).to_be_visible()
    field.press("Escape")
    expect(page.locator(".mast ins")).to_have_count(0)
    expect(page.locator(".plan .ghost")).to_have_count(0)
    # A corner beyond the opposite side: the plan crosses itself, the old shape stands, what was drawn stays.
    corner = page.get_by_role("button", name="Corner 3 of Laboratory").bounding_box()
    assert corner
    page.mouse.move(corner["x"] + 5, corner["y"] + 5)
    page.mouse.down()
    page.mouse.move(corner["x"] - 300, corner["y"] + 220, steps=6)
    page.mouse.up()
    expect(page.get_by_text("This does not close.")).to_be_visible()
    assert stored(server, board)["bodies"][0]["outline"][2] == [12.0, 8.4]
    page.get_by_role("button", name="Go back").first.click()
    expect(page.get_by_text("This does not close.")).to_have_count(0)


def test_arrows_preview_and_enter_takes(board: Board, server: Server) -> None:
    page = board.page
    side(page, 2).focus()
    for _ in range(4):
        page.keyboard.press("ArrowRight")
    expect(page.locator(".ledger .last")).to_contain_text("Enter takes")
    page.keyboard.press("Enter")
    taken(board, "Laboratory: side 2 moved")
    assert stored(server, board)["bodies"][0]["outline"][1] == [pytest.approx(12.02), 0.0]


def test_an_opening_is_dragged_to_the_module_typed_and_removed(board: Board, server: Server) -> None:
    page = board.page
    window = page.get_by_role("button", name=re.compile("^Window W3,"))
    box = window.locator("rect").bounding_box()
    assert box
    metre = box["width"] / 1.5
    page.mouse.move(box["x"] + 8, box["y"] + 8)
    page.mouse.down()
    page.mouse.move(box["x"] + 8 - 0.05 * metre - 3, box["y"] + 8, steps=8)
    page.mouse.up()
    taken(board, "W3 moved")
    moved = next(one for one in stored(server, board)["openings"] if one["id"] == "w3")
    assert moved["u"] == pytest.approx(8.4)  # it stood 85 mm off the module
    right = page.get_by_label("from the right")
    expect(right).to_have_value(re.compile("2.100"))
    right.fill("1500")
    right.press("Enter")
    taken(board, "from the right")
    assert next(one for one in stored(server, board)["openings"] if one["id"] == "w3")["u"] == pytest.approx(9.0)
    before = area(page, "e3")
    window.focus()
    page.keyboard.press("Delete")
    taken(board, "W3 removed")
    expect(page.get_by_test_id("quantity-e3").locator("input")).not_to_have_value(re.compile(f"^{before}"))
    page.get_by_role("button", name="Place a window").click()
    face = page.locator(".wall").first.bounding_box()
    assert face
    page.mouse.click(face["x"] + 9.2 * metre, face["y"] + 3.2 * metre)
    taken(board, "placed")
    assert len(stored(server, board)["openings"]) == 20


def test_a_ridge_is_as_high_as_typed_however_slowly_the_server_follows(board: Board, server: Server) -> None:
    ridge = board.page.get_by_label("ridge above eaves", exact=True)

    def late(route: Route) -> None:  # the pitch that is being previewed is not known to be drawn yet
        ridge.fill("1800")
        ridge.press("Enter")
        route.continue_()

    board.page.route("**/api/v1/projects/*/buildings/*/shape", late, times=1)
    ridge.fill("1700")
    taken(board, "ridge")
    expect(ridge).to_have_value(re.compile(r"^1\s800"))


def test_a_typed_area_is_kept_says_what_it_would_be_and_is_given_back(board: Board, server: Server) -> None:
    page = board.page
    row = page.get_by_test_id("quantity-e2")
    field = row.locator("input")
    field.fill("200")
    field.press("Enter")
    expect(row).to_contain_text("typed, the shape has 212.4 m²")
    assert stored(server, board)["elements"][1]["area"] == 200.0
    row.get_by_role("button", name="Give Wall W-A back to the shape").click()
    expect(row).to_contain_text("from the shape")
    assert stored(server, board)["elements"][1]["area"] == 0.0


def test_every_edge_gets_a_joint_in_one_action(board: Board, server: Server) -> None:
    page = board.page
    expect(page.get_by_text("of the shape without a joint")).to_be_visible()
    page.get_by_role("button", name="Draw a joint for each").click()
    expect(page.get_by_text("of the shape without a joint")).to_have_count(0)
    joints = stored(server, board)["joints"]
    assert {"ridge", "eave", "verge", "corner", "base", "opening", "threshold", "floor line"} <= {
        one["family"] for one in joints
    }
    assert all(one["length"] == 0 and one["follows"] for one in joints)


def test_a_face_of_the_shell_leads_to_its_zone_and_the_shell_turns(board: Board) -> None:
    page = board.page
    page.get_by_role("button", name="Turn right").click()
    expect(page.get_by_text("from the north-east")).to_be_visible()
    page.locator(".face").last.click()
    expect(page).to_have_url(re.compile(r"/[A-H]2"))


def test_a_building_without_a_shape_is_drawn_from_its_lengths(page: Page, server: Server, campus: str) -> None:
    board = Board(page, server.address, campus).open(f"{LAB}/1?view=shape")
    page.get_by_role("button", name="Draw it").click()
    taken(board, "Main Laboratory drawn")
    expect(page.get_by_test_id("quantity-e2")).to_contain_text("typed, the shape has")
    page.get_by_role("button", name="Give all back to the shape").click()
    expect(page.get_by_test_id("quantity-e2")).to_contain_text("from the shape")


def test_a_shell_stands_within_twelve_actions_and_a_minute(page: Page, server: Server) -> None:
    page.goto(server.address)
    page.get_by_role("button", name="Begin a project").click()
    page.get_by_label("plan", exact=True).select_option("L")
    page.get_by_label("roof", exact=True).select_option("hip")
    page.keyboard.press("Escape")  # nothing is left behind
    page.get_by_role("button", name="Begin a project").click()
    page.get_by_label("name").fill("Shore house")
    page.get_by_label("name").press("Enter")  # three actions
    expect(page.get_by_role("heading", name="Shape", exact=True)).to_be_visible()
    R = page.get_by_test_id("R_effective")
    expect(R.locator(".delta")).to_have_text("no change", timeout=60_000)
    assert number(R.locator(".value b").inner_text()) > 2
    expect(R.locator("small")).to_have_text("Effective R, areas, joints, ground")
    expect(page.get_by_text("of the shape without a joint")).to_have_count(0)


def test_a_beginning_that_cannot_be_is_refused_and_stays(page: Page, server: Server) -> None:
    page.goto(server.address)
    page.get_by_role("button", name="Begin a project").click()
    page.get_by_label("plan", exact=True).select_option("points")
    page.get_by_label("Corners as x,y").fill("0,0 10,8 10,0 0,8")
    page.get_by_role("button", name="Draw the shell").click()
    expect(page.get_by_text("crosses")).to_be_visible()
    expect(page.get_by_label("Corners as x,y")).to_have_value("0,0 10,8 10,0 0,8")


def test_a_schedule_is_sorted_read_and_refused_by_line(board: Board, server: Server, tmp_path: Path) -> None:
    page = board.page
    table = page.get_by_test_id("openings")
    table.get_by_role("button", name="width").click()
    expect(table.locator("tbody tr").first).to_contain_text("D1")
    table.get_by_role("button", name="width").click()
    expect(table.locator("tbody tr").first).to_contain_text("1\u2009500 mm")
    file = tmp_path / "more.csv"
    file.write_text("wall,mark,width [mm],height [mm],sill [mm],from left [mm]\nEast,W99,6oo,600,900,6500\n")
    page.get_by_label("Opening schedule to read").set_input_files(file)
    expect(page.get_by_text("line 2, column width: “6oo” is not a number")).to_be_visible(timeout=READ_MS)
    file.write_text(file.read_text().replace("6oo", "600"))
    page.get_by_label("Opening schedule to read").set_input_files(file)
    expect(table).to_contain_text("W99", timeout=READ_MS)
    assert len(stored(server, board)["openings"]) == 21


def test_a_drawing_is_read_shown_and_taken_in_one_edit(board: Board, server: Server) -> None:
    page = board.page
    files = ROOT / "tests" / "formats" / "reading" / "dxf"
    before = stored(server, board, "sample-cold-store")
    board.open("sample-cold-store/1?view=shape")
    page.get_by_label("DXF or IFC file to read").set_input_files(next(files.glob("a4_*")))
    expect(page.get_by_text("does not say in which unit it is drawn")).to_be_visible(timeout=READ_MS)
    page.get_by_role("button", name="mm, as large as walls are").click()
    reading = page.get_by_test_id("reading")
    expect(reading).to_contain_text("1 wall, 1 opening", timeout=READ_MS)
    page.get_by_label("Side that wall 1 is").select_option("b1/0")
    expect(page.locator(".from-file")).to_have_count(1)
    assert stored(server, board, "sample-cold-store") == before  # nothing changes until it is taken
    page.get_by_role("button", name="Take 1 opening").click()
    taken(board, "1 opening read from a4_no_unit.dxf")
    assert len(stored(server, board, "sample-cold-store")["openings"]) == 1
    page.get_by_label("DXF or IFC file to read").set_input_files(next((files / "bad").glob("b2_*")))
    expect(page.get_by_text("crosses itself")).to_be_visible(timeout=READ_MS)
    page.keyboard.press("Control+z")
    expect(page.locator(".ledger .last")).to_contain_text("nothing to take back")
    assert stored(server, board, "sample-cold-store")["openings"] == []


def test_a_model_draws_a_building_without_a_shape(page: Page, server: Server, campus: str) -> None:
    board = Board(page, server.address, campus).open("pump-house/1?view=shape")
    model = next((ROOT / "tests" / "formats" / "reading" / "ifc").glob("i1_*"))
    page.get_by_label("DXF or IFC file to read").set_input_files(model)
    expect(page.get_by_test_id("reading")).to_contain_text("4 walls, 7 openings", timeout=READ_MS)
    expect(page.locator(".ledger .last small")).to_have_text("Preview, not saved yet")
    assert stored(server, board, "pump-house")["bodies"] == []
    page.get_by_role("button", name="Take it").click()
    taken(board, "Shape read from i1_gable_house_mm.ifc")
    drawn = stored(server, board, "pump-house")
    assert (drawn["bodies"][0]["storeys"], len(drawn["openings"])) == ([2.7], 7)
    page.get_by_role("button", name="Give all back to the shape").click()
    expect(page.get_by_text("from i1_gable_house_mm.ifc").first).to_be_visible()
    page.keyboard.press("Control+z")
    page.keyboard.press("Control+z")
    expect(page.locator(".ledger .last")).to_contain_text("nothing to take back")
    assert stored(server, board, "pump-house")["bodies"] == []


def test_north_is_turned_by_hand_and_by_the_keys(board: Board, server: Server) -> None:
    page = board.page
    arrow = page.get_by_role("slider", name="North")
    box = arrow.locator("circle").first.bounding_box()
    assert box
    x, y = box["x"] + box["width"] / 2, box["y"] + box["height"] / 2
    page.mouse.move(x, y)
    page.mouse.down()
    page.mouse.move(x - 30, y, steps=4)
    page.mouse.up()
    taken(board, "North turned")
    assert stored(server, board)["north"] == 90.0  # the top of the plan faces east
    arrow.focus()
    page.keyboard.press("Shift+ArrowLeft")
    page.keyboard.press("Enter")
    expect(arrow).to_have_attribute("aria-valuenow", "105")
    page.keyboard.press("Control+z")
    expect(arrow).to_have_attribute("aria-valuenow", "90")


def test_a_flat_face_is_entered_with_its_outline(board: Board, server: Server) -> None:
    page = board.page
    before = area(page)
    page.get_by_role("button", name="Add a flat face").click()
    page.get_by_label("What Flat face 1 is counted with").select_option(label="Wall W-A")
    corners = page.get_by_label("Corners of Flat face 1")
    corners.fill("0,0 3,0 3,1 0,2")
    corners.press("Enter")
    taken(board, "Flat face 1: outline")
    expect(page.get_by_test_id("flat-faces")).to_contain_text("4.50 m²")
    expect(page.get_by_test_id("quantity-e2").locator("input")).not_to_have_value(re.compile(f"^{before}"))
    assert area(page) - before == pytest.approx(4.5, abs=0.06)
    corners.fill("0,0 3,0 0,1 3,2")
    corners.press("Enter")
    expect(page.get_by_text("the outline crosses itself").first).to_be_visible()
    assert stored(server, board)["faces"][0]["outline"][2] == [3.0, 1.0]
