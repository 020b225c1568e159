"""`python -m nimble_shell`, and the command `nimble-shell`.

A process that the server starts, for a question or for somebody's file, reads the module that the server was started
with once more: nothing is read here that such a process has no use for.
"""


def main() -> None:
    """The command line."""
    from nimble_shell.cli import app

    app()


if __name__ == "__main__":
    main()
