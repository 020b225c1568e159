"""A demo server as a process of its own and a headless Chromium, for the pictures and the interface tests."""

from __future__ import annotations

import json
import os
import re
import signal
import subprocess
import sys
import time
import urllib.request
from pathlib import Path
from typing import Any

from playwright.sync_api import Browser, BrowserContext, Page, Playwright, ViewportSize

ROOT = Path(__file__).parents[1]
FLAGS = (
    "--no-sandbox --disable-gpu --disable-quic --no-first-run --disable-background-networking "
    "--disable-component-update --disable-sync --process-per-site --in-process-gpu"
)


def launch(playwright: Playwright) -> Browser:
    """Debian's Chromium, headless."""
    return playwright.chromium.launch(executable_path="/usr/bin/chromium", args=FLAGS.split())


SMALLEST: ViewportSize = {"width": 1280, "height": 800}  #: a designer's smallest screen


def context(browser: Browser, server: Server, size: ViewportSize = SMALLEST, scale: float = 1) -> BrowserContext:
    """A screen, let in by a server."""
    made = browser.new_context(
        viewport=size, device_scale_factor=scale, locale="en-GB", timezone_id="UTC", reduced_motion="reduce"
    )
    let_in(made, server)
    made.add_init_script(_COUNTED)
    return made


def let_in(windows: BrowserContext, server: Server) -> None:
    """Give them the key of a server."""
    windows.add_cookies([{"name": f"nimble-shell-{server.port}", "value": server.key, "url": server.address}])


class Server:
    """`nimble-shell demo` as a process on a folder and a port of its own."""

    def __init__(self, folder: Path) -> None:
        self.folder, self.port, self.key = folder, 0, ""
        self.log = folder / "server.log"
        self.start()

    def start(self) -> None:
        folder, port = str(self.folder / "data"), str(self.port)
        command = [sys.executable, "-m", "nimble_shell", "demo", "--data", folder, "--port", port]
        web = os.environ.get("NIMBLE_SHELL_WEB", str(ROOT / "build" / "web"))
        with self.log.open("w") as log:
            environment = {**os.environ, "NIMBLE_SHELL_WEB": web}
            self.process = subprocess.Popen(command, stdout=log, stderr=log, env=environment)
        for _ in range(900):
            found = re.search(r"http://127\.0\.0\.1:(\d+)/\S*\?key=(\S+)", self.log.read_text())
            if found:
                self.port, self.key = int(found[1]), found[2]
                break
            assert self.process.poll() is None, self.log.read_text()
            time.sleep(0.1)
        self.wait()

    def wait(self) -> None:
        for _ in range(900):
            try:
                self.call("GET", "/projects")
            except OSError:
                time.sleep(0.1)
            else:
                return
        raise AssertionError(self.log.read_text())

    def kill(self) -> None:
        """As a power cut would: no goodbye."""
        self.process.send_signal(signal.SIGKILL)
        self.process.wait()

    def stop(self) -> None:
        self.process.terminate()
        self.process.wait(timeout=90)

    @property
    def address(self) -> str:
        return f"http://127.0.0.1:{self.port}"

    def call(self, method: str, path: str, body: Any = None) -> Any:
        """Ask the API as another window would."""
        data = None if body is None else json.dumps(body).encode()
        headers = {"Content-Type": "application/json", "Authorization": f"Bearer {self.key}"}
        request = urllib.request.Request(f"{self.address}/api/v1{path}", data, headers, method=method)
        with urllib.request.urlopen(request, timeout=90) as reply:
            content = reply.read()
        return json.loads(content) if content else None


#: What is asked for: still on its way, and here. A page's stream never ends, and is no part of it.
_COUNTED = """
  window.onItsWay = 0;
  window.arrived = 0;
  const plain = window.fetch;
  window.fetch = (...asked) => {
    window.onItsWay += 1;
    return plain(...asked).finally(() => (window.onItsWay -= 1));
  };
  new PerformanceObserver((list) => {
    window.arrived += list.getEntries().filter((one) => !one.name.includes('/events')).length;
  }).observe({ type: 'resource', buffered: true });
"""
#: As a stream never ends, a page never idles as a browser means it: nothing arrived for half a second instead.
_QUIET = """() => {
  if (window.quietAt?.arrived !== window.arrived) {
    window.quietAt = { arrived: window.arrived, since: performance.now() };
  }
  if (window.onItsWay) return false;
  return performance.now() - window.quietAt.since > 500 && !document.querySelector('[data-stale=true]');
}"""


def quiet(page: Page, timeout: float = 90_000) -> None:
    """Wait until everything that was asked is answered and shown."""
    page.wait_for_function(_QUIET, polling=100, timeout=timeout)
