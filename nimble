#!/usr/bin/env python3
"""Nimble Shell from a clone: `./nimble demo`, `./nimble test`, `./nimble help`.

This file must be readable by a Python that is too old, so that it can say so.
"""
import os
import shutil
import sys

if sys.version_info < (3, 11):  # noqa: UP036
    for newer in ("python3.14", "python3.13", "python3.12", "python3.11"):
        found = shutil.which(newer)
        if found:
            os.execv(found, [found] + sys.argv)
    sys.exit(
        "nimble: step 'Python' stopped.\n"
        "  why: this is Python %d.%d, and 3.11 or newer is needed.\n"
        "  do:  install Python 3.11 or newer, then run ./nimble again." % sys.version_info[:2]
    )

sys.path.insert(0, os.path.dirname(os.path.abspath(__file__)))
sys.dont_write_bytecode = True
from launcher.commands import main  # noqa: E402

sys.exit(main(sys.argv[1:]))
