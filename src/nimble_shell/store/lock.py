"""One server for one data folder: who comes second is told who is there."""

from __future__ import annotations

import os
import sys
from pathlib import Path
from typing import IO

from nimble_shell.store.errors import StoreError

NAME = "nimble-shell.lock"


class FolderLock:
    """Held from start to end of a server; the system lets go of it when the process ends, however it ends."""

    def __init__(self, folder: Path) -> None:
        self._file = folder / NAME
        self._held: IO[str] | None = None

    def take(self, words: str) -> None:
        """Take the folder. `words` tell a second server who has it.

        Raises
        ------
        StoreError
            If another server has it.
        """
        try:
            opened = self._file.open("a+", encoding="utf-8")
        except OSError as error:
            raise StoreError("folder_unusable", f"The data folder cannot be written: {error.strerror}.",
                             "Check its permissions, or name another with --data DIR.") from error  # fmt: skip
        if not _locked(opened):
            opened.seek(0)
            by = opened.read().strip() or "another program"
            opened.close()
            raise StoreError("folder_taken", f"This data folder is in use by {by}.",
                             "Use that one, stop it, or name another folder with --data DIR.")  # fmt: skip
        opened.seek(0)
        opened.truncate()
        opened.write(f"{words}, process {os.getpid()}")
        opened.flush()
        self._held = opened

    def release(self) -> None:
        if self._held is not None:
            self._held.close()
            self._held = None


def _locked(opened: IO[str]) -> bool:
    """Whether the lock could be taken at once."""
    try:
        if sys.platform == "win32":
            import msvcrt

            opened.seek(4096)
            msvcrt.locking(opened.fileno(), msvcrt.LK_NBLCK, 1)
        else:
            import fcntl

            fcntl.flock(opened, fcntl.LOCK_EX | fcntl.LOCK_NB)
    except OSError:
        return False
    return True
