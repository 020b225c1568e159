"""The launcher: each step says what it was, why it stopped and what to do; nothing is done twice."""

from __future__ import annotations

import asyncio
import os
import socket
import subprocess
import sys
from pathlib import Path

import pytest

from launcher import checks, commands, setup, steps
from nimble_shell.serve import listen

ROOT = Path(__file__).parents[1]


def test_a_python_that_is_too_old_is_told_in_words(tmp_path: Path) -> None:
    """The entry file is read by whatever Python there is: its syntax is plain and its message complete."""
    source = (ROOT / "nimble").read_text()
    pretended = source.replace("sys.version_info < (3, 11)", "True").replace("shutil.which(newer)", "None")
    (tmp_path / "nimble").write_text(pretended)
    done = subprocess.run([sys.executable, str(tmp_path / "nimble")], capture_output=True, text=True, check=False)
    assert done.returncode == 1
    for word in ("step 'Python' stopped", "why:", "do:", "3.11"):
        assert word in done.stderr


def test_a_failed_step_says_which_why_and_what_to_do() -> None:
    with pytest.raises(steps.StepFailed) as failed:
        steps.run("Python packages", [sys.executable, "-c", "import sys; sys.exit('no index at all')"], setup.NO_INDEX)
    text = str(failed.value)
    assert "step 'Python packages' stopped" in text
    assert "no index at all" in text
    assert "package index can be reached" in text


def test_a_command_that_is_not_there_is_a_failed_step_too() -> None:
    with pytest.raises(steps.StepFailed, match="front-end packages"):
        steps.run("front-end packages", ["no-such-program-anywhere"], "install it")


def test_a_step_is_done_again_only_when_its_inputs_change(tmp_path: Path, monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setattr(steps, "ROOT", tmp_path)
    (tmp_path / "a").write_text("one")
    mark = steps.fingerprint([tmp_path / "a"])
    stamp = tmp_path / "build" / "stamp"
    assert not steps.is_done(stamp, mark)
    steps.note_done(stamp, mark)
    assert steps.is_done(stamp, steps.fingerprint([tmp_path / "a"]))
    (tmp_path / "a").write_text("two")
    assert not steps.is_done(stamp, steps.fingerprint([tmp_path / "a"]))


def test_a_node_that_is_too_old_is_not_taken(tmp_path: Path) -> None:
    fake = tmp_path / "node"
    fake.write_text("#!/bin/sh\necho v18.2.0\n")
    fake.chmod(0o755)
    assert setup._node_version(fake) == (18, 2, 0) < setup.NODE_AT_LEAST
    assert setup._node_version(tmp_path / "none") == (0,)
    assert setup._node_version(setup.node()) >= setup.NODE_AT_LEAST


def test_the_distributions_python_is_taken_where_it_is_the_same_version_and_whole(
    tmp_path: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    here, own = tmp_path / "python3", Path(sys.executable)
    here.write_text(f'#!/bin/sh\nexec "{own}" "$@"\n')
    here.chmod(0o755)
    assert setup.interpreter(here) == here
    assert setup.interpreter(tmp_path / "none") == own
    with monkeypatch.context() as other:
        other.setattr(sys, "version_info", (3, 99, 0))
        assert setup.interpreter(here) == own
    here.write_text("#!/bin/sh\nexit 1\n")  # it has no venv, or cannot put pip into one
    assert setup.interpreter(here) == own


@pytest.mark.parametrize("here", [True, False])
def test_the_front_end_waits_for_python_only_where_node_comes_with_it(
    here: bool, monkeypatch: pytest.MonkeyPatch
) -> None:
    done: list[str] = []
    monkeypatch.setattr(setup, "_node_here", lambda: Path("node") if here else None)
    monkeypatch.setattr(setup, "python_packages", lambda *, for_tests: done.append(f"python {for_tests}"))
    for step in ("compiled", "node_packages", "front_end"):
        monkeypatch.setattr(setup, step, lambda step=step: done.append(step))
    python, web = setup._sides(for_tests=True)
    assert done == ([] if here else ["python True"])
    web()
    python()
    assert done[-4:] == ["node_packages", "front_end", "python True", "compiled"]


def test_help_lists_the_commands(capsys: pytest.CaptureFixture[str]) -> None:
    assert commands.main([]) == 0
    said = capsys.readouterr().out
    for command in ("demo", "serve", "test", "verify", "bench", "screenshots", "wall", "section", "moisture"):
        assert f"./nimble {command}" in said


def test_the_locks_record_no_download_address() -> None:
    assert checks._locks(quiet=True)[0]


class TestChecks:
    """The tests are shown as they come; what runs beside them speaks where it failed."""

    @staticmethod
    def run(monkeypatch: pytest.MonkeyPatch, codes: dict[str, int], *arguments: str) -> int:
        def made(_: list[str]) -> dict[str, checks.Check]:
            return {name: checks._running([[sys.executable, "-c", f"print('{name} says'); raise SystemExit({code})"]],
                                          ROOT, dict(os.environ)) for name, code in codes.items()}  # fmt: skip

        monkeypatch.setattr(checks, "_checks", made)
        monkeypatch.setattr(setup, "everything", lambda: None)
        return checks.run_checks(list(arguments))

    def test_all_good_is_good(self, monkeypatch: pytest.MonkeyPatch, capfd: pytest.CaptureFixture[str]) -> None:
        assert self.run(monkeypatch, {"pytest": 0, "ruff": 0, "mypy": 0}) == 0
        out, err = capfd.readouterr()
        assert out == "pytest says\n"  # what is beside it is quiet
        assert all(f"{name}: done in" in err for name in ("pytest", "ruff", "mypy"))

    def test_what_failed_beside_says_why_at_the_end(
        self, monkeypatch: pytest.MonkeyPatch, capfd: pytest.CaptureFixture[str]
    ) -> None:
        assert self.run(monkeypatch, {"pytest": 0, "ruff": 3, "mypy": 0}) == 1
        err = capfd.readouterr().err
        assert err.index("ruff: failed in") < err.index("ruff: failed\nruff says")
        assert "mypy says" not in err

    def test_one_alone_is_shown(self, monkeypatch: pytest.MonkeyPatch, capfd: pytest.CaptureFixture[str]) -> None:
        assert self.run(monkeypatch, {"pytest": 1, "ruff": 0}, "--only", "ruff") == 0
        assert capfd.readouterr().out == "ruff says\n"

    def test_an_unknown_one_is_told_with_those_there_are(
        self, monkeypatch: pytest.MonkeyPatch, capfd: pytest.CaptureFixture[str]
    ) -> None:
        assert self.run(monkeypatch, {"pytest": 0, "ruff": 0}, "--only", "nothing") == 2
        assert "pytest, ruff" in capfd.readouterr().out

    def test_a_command_stops_at_its_first_failure(self) -> None:
        commands_ = [[sys.executable, "-c", f"print({n}); raise SystemExit({n})"] for n in (0, 1, 2)]
        assert checks._running(commands_, ROOT, dict(os.environ))(True) == (False, "0\n1\n")


def test_a_taken_port_is_told_with_another(tmp_path: Path) -> None:
    with socket.socket() as taken:
        taken.bind(("127.0.0.1", 0))
        taken.listen()
        port = str(taken.getsockname()[1])
        command = [sys.executable, "-m", "nimble_shell", "serve", "--port", port, "--data", str(tmp_path)]
        done = subprocess.run(command, capture_output=True, text=True, check=False, timeout=60)
    assert done.returncode == 1
    assert "step 'port' stopped" in done.stderr
    assert "--port" in done.stderr


def test_a_damaged_database_is_told_at_the_start(tmp_path: Path) -> None:
    (tmp_path / "nimble-shell.sqlite").write_bytes(b"rubbish" * 3000)
    command = [sys.executable, "-m", "nimble_shell", "serve", "--port", "0", "--data", str(tmp_path)]
    done = subprocess.run(command, capture_output=True, text=True, check=False, timeout=60)
    assert done.returncode == 1
    assert "step 'database' stopped" in done.stderr
    assert "backups" in done.stderr


def test_a_missing_front_end_is_told(tmp_path: Path) -> None:
    environment = {**os.environ, "NIMBLE_SHELL_WEB": str(tmp_path / "none")}
    command = [sys.executable, "-m", "nimble_shell", "serve", "--port", "0", "--data", str(tmp_path)]
    done = subprocess.run(command, capture_output=True, text=True, check=False, timeout=60, env=environment)
    assert "step 'front end' stopped" in done.stderr


def test_no_answer_waits_for_the_one_before_to_be_acknowledged() -> None:
    waits: list[int] = []

    async def ask() -> None:
        def answered(_: asyncio.StreamReader, writer: asyncio.StreamWriter) -> None:
            waits.append(writer.get_extra_info("socket").getsockopt(socket.IPPROTO_TCP, socket.TCP_NODELAY))
            writer.close()

        listener = listen(0)
        async with await asyncio.start_server(answered, sock=listener):
            reader, writer = await asyncio.open_connection(*listener.getsockname())
            assert await reader.read() == b""
            writer.close()

    asyncio.run(ask())
    assert waits == [1]
