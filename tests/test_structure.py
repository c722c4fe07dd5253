"""The shape of the code: one direction, small files, a narrow front, documents that are true."""

from __future__ import annotations

import ast
import doctest
import importlib
import pkgutil
import re
import shlex
from pathlib import Path

import pytest

import nomarium as package
from helpers import nomarium
from nomarium.cli.main import COMMANDS
from nomarium.reading.columns.headings import FIELDS, PARTS, normal, spellings

ROOT = Path(__file__).parents[1]
SOURCE = ROOT / "src" / "nomarium"
LAYERS = (
    "model", "reckoning", "ical", "sheets", "reading", "school", "sources", "history", "targets", "building",
    "checking", "pictures", "exchange", "samples", "cli",
)  # fmt: skip
"""From the bottom up: a module imports from its own layer and those before it."""

MODULES = sorted(SOURCE.rglob("*.py"))


def imports_of(path: Path) -> set[str]:
    tree = ast.parse(path.read_text("utf-8"))
    found = set()
    for node in ast.walk(tree):
        if isinstance(node, ast.ImportFrom) and node.module:
            found |= {node.module, *(f"{node.module}.{name.name}" for name in node.names)}
        elif isinstance(node, ast.Import):
            found |= {name.name for name in node.names}
    return found


@pytest.mark.parametrize("path", MODULES, ids=lambda path: str(path.relative_to(SOURCE)))
def test_a_module_imports_downwards_only_and_the_core_has_no_interface(path: Path) -> None:
    layer = path.relative_to(SOURCE).parts[0]
    if layer not in LAYERS:
        return
    imported = imports_of(path)
    above = LAYERS[LAYERS.index(layer) + 1 :]
    assert [
        name
        for name in imported
        if name.split(".")[0] == "nomarium" and name.split(".")[1:2][0:1] and name.split(".")[1] in above
    ] == []
    if layer != "cli":
        assert imported.isdisjoint({"typer", "rich", "click", "locale"})
        assert "print(" not in path.read_text("utf-8")
        assert "os.environ" not in path.read_text("utf-8")
    assert len(path.read_text("utf-8").splitlines()) <= 400


def test_the_front_is_narrow_and_every_name_in_it_is_there() -> None:
    assert list(package.__all__) == sorted(package.__all__)
    assert [name for name in package.__all__ if not getattr(package, name).__doc__] == []
    with pytest.raises(AttributeError, match="no attribute"):
        package.nothing  # noqa: B018


def test_the_examples_of_docstrings_run() -> None:
    tried = 0
    for info in pkgutil.walk_packages([str(SOURCE)], "nomarium."):
        if not info.name.endswith("__main__"):
            result = doctest.testmod(importlib.import_module(info.name))
            assert result.failed == 0, info.name
            tried += result.attempted
    assert tried >= 25


def test_heading_spellings_stand_as_they_are_compared_and_name_real_fields() -> None:
    known = {*FIELDS, *PARTS}
    for line in (SOURCE / "reading/data/headings.txt").read_text("utf-8").splitlines():
        field, colon, words = line.partition(": ")
        if colon and not line.startswith("#"):
            assert field in known
            for word in words.split(", "):
                assert normal(word.removeprefix("~")) == word.removeprefix("~"), (field, word)
    assert {match.field for match in spellings().values()} == known


def codes() -> set[str]:
    found = set()
    pattern = re.compile(
        r'(?:Problem|Refusal|note|_refusal|_nothing|_passed)\(\s*(?:[\w.]+, *"[^"]*", *)?"([a-z0-9]+(?:-[a-z0-9]+)+)"'
    )
    for path in MODULES:
        found |= set(pattern.findall(path.read_text("utf-8")))
    from nomarium.reading.rows.when import NOTES

    return found | set(NOTES)


def test_every_problem_code_is_documented() -> None:
    text = (ROOT / "docs/problems.md").read_text("utf-8")
    assert sorted(code for code in codes() if f"`{code}`" not in text) == []


DOCUMENTS = ["README.md", *(f"docs/{path.name}" for path in sorted((ROOT / "docs").glob("*.md")))]


@pytest.mark.parametrize("name", DOCUMENTS)
def test_the_commands_of_the_documents_run(name: str, tmp_path, monkeypatch) -> None:
    """Every line in a fenced block that begins with `nomarium` runs on the demo school's lists."""
    from nomarium.cli.demo import write_samples

    write_samples(tmp_path)
    monkeypatch.chdir(tmp_path)
    text = (ROOT / name).read_text("utf-8")
    for block in re.findall(r"```(?:sh)?\n(.*?)```", text, re.DOTALL):
        for line in block.replace("\\\n", " ").splitlines():
            if line.startswith("nomarium "):
                command, _, comment = line.partition("  #")
                outcome = nomarium(*shlex.split(command)[1:])
                expected = int(comment.strip()[-1]) if "exit status" in comment else 0
                assert outcome.status == expected, (line, outcome.text)


def test_the_documents_name_every_command_and_every_link_is_there() -> None:
    text = (ROOT / "README.md").read_text("utf-8")
    assert [command for command in COMMANDS if f"nomarium {command}" not in text] == []
    for name in DOCUMENTS:
        for link in re.findall(r"\]\(([^)#:]+)\)", (ROOT / name).read_text("utf-8")):
            assert ((ROOT / name).parent / link).exists(), (name, link)


def test_no_module_needs_itself_by_way_of_others() -> None:
    def name_of(path: Path) -> str:
        return ".".join(("nomarium", *path.relative_to(SOURCE).with_suffix("").parts)).removesuffix(
            ".__init__"
        )

    names = {name_of(path) for path in MODULES}
    graph = {name_of(path): imports_of(path) & names - {name_of(path), "nomarium"} for path in MODULES}
    while graph:  # take away what needs nothing that is left: a circle stays
        free = [name for name, needs in graph.items() if not needs & graph.keys()]
        assert free, sorted(graph)
        for name in free:
            del graph[name]
