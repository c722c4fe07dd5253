"""Entry point: answers `--version` at once, and imports the command line for everything else."""

import gc
import sys

from nomarium._version import VERSION


def main() -> None:
    """Run the `nomarium` command with the arguments of this process."""
    if sys.argv[1:] == ["--version"]:
        sys.stdout.write(f"nomarium {VERSION}\n")
        return
    gc.disable()  # batch work on short-lived plain data, imports included: the collector finds nothing and costs a fifth
    try:
        from nomarium.cli.main import run

        run(sys.argv[1:])
    except KeyboardInterrupt:  # before there was a command to stop
        sys.stderr.write("Stopped; nothing was replaced.\n")
        sys.exit(130)
    finally:
        gc.freeze()  # the last look for what nobody holds, as the process ends, would find nothing either


if __name__ == "__main__":
    main()
