"""What drawing a frame costs in the window while a side of the shape is dragged: plan, heights, walls and shell."""

from __future__ import annotations

import statistics
import tempfile
from pathlib import Path

from playwright.sync_api import Page, sync_playwright

from tools.window import Server, context, launch, quiet

FRAME_MS = 32.0  #: asked of one frame
_STEPS = 200
#: How long the window works on each frame: from its beginning until what it has drawn is handed on.
_WATCH = """() => {
  window.frames_ = [];
  const look = () => {
    const begun = performance.now();
    const channel = new MessageChannel();
    channel.port1.onmessage = () => window.frames_.push(performance.now() - begun);
    channel.port2.postMessage(0);
    window.looking_ = requestAnimationFrame(look);
  };
  look();
}"""


def _frames(page: Page) -> list[float]:
    side = page.get_by_role("button", name="Side 3 of").first
    box = side.bounding_box()
    assert box is not None
    x, y = box["x"] + box["width"] / 2, box["y"] + box["height"] / 2
    page.mouse.move(x, y)
    page.mouse.down()
    page.evaluate(_WATCH)
    for step in range(_STEPS):
        page.mouse.move(x, y - 0.15 * step)
    found: list[float] = page.evaluate("() => { cancelAnimationFrame(window.looking_); return window.frames_ }")
    page.keyboard.press("Escape")
    page.mouse.up()
    return found


def main() -> None:
    with tempfile.TemporaryDirectory() as folder, sync_playwright() as playwright:
        server, browser = Server(Path(folder)), launch(playwright)
        page = context(browser, server).new_page()
        page.goto(f"{server.address}/heron-flats/main-laboratory/1?view=shape")
        page.get_by_test_id("quantity-e2").wait_for()
        quiet(page)
        found = _frames(page)
        browser.close()
        server.stop()
    p95 = statistics.quantiles(found, n=20)[-1]
    print(f"shape: a frame while a side is dragged, {len(found)} frames: p50 {statistics.median(found):.1f} ms, "
          f"p95 {p95:.1f} ms (asked {FRAME_MS:.0f}, {'within' if p95 <= FRAME_MS else 'OVER'})")  # fmt: skip


if __name__ == "__main__":
    main()
