"""One set-up step: say what is done, run it, and on failure say which step, why, and what to do."""

from __future__ import annotations

import hashlib
import subprocess
import sys
from collections.abc import Iterable, Sequence
from pathlib import Path

ROOT = Path(__file__).resolve().parent.parent
BUILD = ROOT / "build"


class StepFailed(Exception):
    """A set-up step that could not be done."""

    def __init__(self, step: str, why: str, fix: str) -> None:
        super().__init__(f"nimble: step '{step}' stopped.\n  why: {why}\n  do:  {fix}")


def say(text: str) -> None:
    """Progress goes to standard error: standard output belongs to the program's results."""
    print(f"nimble: {text}", file=sys.stderr, flush=True)


def run(
    step: str, command: Sequence[str | Path], fix: str, *, cwd: Path = ROOT, env: dict[str, str] | None = None
) -> None:
    """Run a set-up command quietly; its output is shown only when it fails."""
    try:
        done = subprocess.run(
            [str(part) for part in command], cwd=cwd, env=env, text=True, capture_output=True, check=False
        )
    except OSError as error:
        raise StepFailed(step, str(error), fix) from error
    if done.returncode:
        last = [line for line in (done.stdout + done.stderr).splitlines() if line.strip()][-12:]
        raise StepFailed(step, "\n       ".join(last) or f"exit code {done.returncode}", fix)


def fingerprint(paths: Iterable[Path], *words: str) -> str:
    """A hash of names and contents, so that a step is done again only when its inputs changed."""
    digest = hashlib.sha256("\0".join(words).encode())
    for path in sorted(paths):
        digest.update(str(path.relative_to(ROOT)).encode() + b"\0" + path.read_bytes())
    return digest.hexdigest()


def is_done(stamp: Path, mark: str) -> bool:
    return stamp.is_file() and stamp.read_text() == mark


def note_done(stamp: Path, mark: str) -> None:
    stamp.parent.mkdir(parents=True, exist_ok=True)
    stamp.write_text(mark)
