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
    "model", "reckoning", "ical", "sheets", "reading", "school", "sources", "history", "pictures", "targets",
    "building", "checking", "exchange", "samples", "cli",
)  # fmt: skip
"""From the bottom up: a module imports from its own layer and those before it."""
FRONT = {"__init__.py", "__main__.py", "_version.py"}
"""What alone stands outside the layers."""
INTERFACE = {"typer", "rich", "click", "locale", "time"}
HIDDEN = ("os.environ", "os.getenv", "sys.argv", "sys.stdin", "sys.stdout", "date.today(", "datetime.now(")
"""Inputs that only the command line may look at."""

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


def layer_of(name: str) -> str:
    """The layer of a module by its dotted name; nothing for what is not ours or the front."""
    parts = name.split(".")
    return parts[1] if parts[0] == "nomarium" and len(parts) > 1 and parts[1] in LAYERS else ""


@pytest.mark.parametrize("path", MODULES, ids=lambda path: str(path.relative_to(SOURCE)))
def test_a_module_imports_downwards_only_and_the_core_has_no_interface(path: Path) -> None:
    layer, text = path.relative_to(SOURCE).parts[0], path.read_text("utf-8")
    assert layer in LAYERS or layer in FRONT, "a module outside the layers answers to nobody"
    assert len(text.splitlines()) <= 400
    if layer in FRONT:
        return
    above = LAYERS[LAYERS.index(layer) + 1 :]
    imported = imports_of(path)
    assert [name for name in imported if layer_of(name) in above] == []
    assert [name for name in imported if name.startswith("nomarium.__main__")] == []
    if layer != "cli":
        assert imported.isdisjoint(INTERFACE)
        assert "print(" not in text
        assert [name for name in HIDDEN if name in text] == []


def test_the_net_of_layers_catches_what_it_should() -> None:
    assert layer_of("nomarium.cli.render") == "cli"
    assert layer_of("nomarium.model") == "model"
    assert layer_of("csv") == layer_of("nomarium") == layer_of("nomarium._version") == ""
    folders = {path.name for path in SOURCE.iterdir() if path.is_dir() and path.name != "__pycache__"}
    assert folders == set(LAYERS), "every folder has its place among the layers"


LONG = {"build": 110, "survey": 80, "tally": 90}
"""Commands are lists of options for the most part."""


@pytest.mark.parametrize("path", MODULES, ids=lambda path: str(path.relative_to(SOURCE)))
def test_functions_fit_a_screen(path: Path) -> None:
    for node in ast.walk(ast.parse(path.read_text("utf-8"))):
        if isinstance(node, ast.FunctionDef):
            length = (node.end_lineno or 0) - node.lineno + 1
            assert length <= LONG.get(node.name, 60), f"{node.name} has {length} lines"


def test_types_have_few_holes() -> None:
    texts = [path.read_text("utf-8") for path in MODULES]
    assert sum(len(re.findall(r"\bAny\b", text)) for text in texts) <= 30
    assert sum(text.count("type: ignore") for text in texts) <= 12


def test_control_flow_goes_by_why_and_not_by_the_code_of_a_problem() -> None:
    """Only the command line, which shows problems, looks at their codes."""
    for path in MODULES:
        if path.relative_to(SOURCE).parts[0] != "cli":
            found = re.findall(
                r"\b(?:problem|refusal|found|one)\.code (?:==|!=|in|not in) [\"(]", path.read_text("utf-8")
            )
            assert [text for text in found if "one.code != " not in text] == [], path


def test_every_layout_is_one_module_with_one_look() -> None:
    from nomarium.reading.layouts.layout import LAYOUTS

    modules = {path.stem for path in (SOURCE / "reading/layouts").glob("*.py")}
    for layout in LAYOUTS:
        assert layout.module in modules
        look = getattr(importlib.import_module(f"nomarium.reading.layouts.{layout.module}"), layout.function)
        assert look.__doc__


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
    assert {match.field for match in spellings().values()} == known - {"milestone", "more-categories"}


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
    monkeypatch.setenv("NOMARIUM_HISTORY", str(tmp_path / "history.sqlite3"))
    text = (ROOT / name).read_text("utf-8")
    for block in re.findall(r"```(?:sh)?\n(.*?)```", text, re.DOTALL):
        for line in block.replace("\\\n", " ").splitlines():
            if line.startswith("nomarium ") and line.split()[1] not in (
                "publish",
                "watch",
            ):  # test_publishing, test_watching
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
