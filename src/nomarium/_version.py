"""The version, alone in a module so that `--version` need not import the program."""

VERSION = "0.1.0"
