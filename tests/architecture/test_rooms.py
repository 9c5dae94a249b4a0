"""The house's rules, enforced: no Qt below the interface, small modules, everything shipped."""

import ast
import json
import re
import subprocess
import sys
import tomllib
from functools import cache
from importlib.metadata import packages_distributions
from pathlib import Path

import numpy as np
import pytest
import shapely

import hardkeel
from hardkeel.airframe.cut_pieces import piece_named
from hardkeel.cli.commands import COMMANDS
from hardkeel.demo.kettlewick import demo_build
from hardkeel.edits.sight import lay_targets
from hardkeel.export.mat_sheet import mat_files
from hardkeel.joinery.flat import FlatPiece
from hardkeel.sight.mat import mat_for
from hardkeel.sight.pictures import Pixels, jpeg_of
from hardkeel.storage.package import save
from tests.matted import lying_at, photographed, tilted

SOURCE = Path(hardkeel.__file__).parent
ROOT = Path(__file__).parents[2]
# a warning sign and no fence: think again at 400; at 600 it is two subjects, and nobody reads it whole
MOST_LINES = 600
MOST_WIDGETS = 12  # public ones of a class
CORE = sorted(
    ".".join(("hardkeel", *path.relative_to(SOURCE).with_suffix("").parts)).removesuffix(
        ".__init__"
    )
    for path in SOURCE.rglob("*.py")
    if path.relative_to(SOURCE).parts[0] not in ("ui", "__main__.py")
)


def on_its_mat(piece: FlatPiece) -> Pixels:
    """A small picture of a piece on a mat."""
    mat = mat_for("A4", (210.0, 297.0))
    eye = tilted(8, 480, (105, 150), focal=1100.0, size=(1320, 1000))
    lying = lying_at(shapely.Polygon(piece.outline, piece.holes), 3.0, (105, 150))
    return photographed(mat.model_dump(mode="json"), mat.inside, lying, eye)


@cache
def tree_of(path: Path) -> ast.Module:
    """A file read once for all rules."""
    return ast.parse(path.read_text(encoding="utf-8"))


BLOCKED = """
import importlib, sys
sys.modules["PyQt6"] = None
for name in sys.argv[1:]:
    importlib.import_module(name)
"""


def test_no_core_module_needs_qt() -> None:
    assert len(CORE) > 40
    done = subprocess.run(
        [sys.executable, "-c", BLOCKED, *CORE], capture_output=True, text=True, check=False
    )
    assert done.returncode == 0, done.stderr


ALL_COMMANDS = """
import contextlib, io, json, sys
sys.modules["PyQt6"] = None
from hardkeel.__main__ import main
told = []
for line in json.loads(sys.argv[1]):
    sys.argv = ["hardkeel", *line]
    out, err = io.StringIO(), io.StringIO()
    with contextlib.redirect_stdout(out), contextlib.redirect_stderr(err):
        code = main()
    told.append((code, out.getvalue(), err.getvalue()))
print(json.dumps(told))
"""


def test_the_command_line_runs_where_there_is_no_qt(tmp_path: Path) -> None:
    demo = demo_build()
    assert demo.fuselage is not None
    tail = tuple(one.but(kind=None) for one in demo.tail[1:])  # little to write
    save(lay_targets(demo.but(tail=(demo.tail[0], *tail))), tmp_path / "demo.keel")
    (tmp_path / "grey.jpg").write_bytes(jpeg_of(np.full((480, 640, 3), 90, np.uint8)))
    (tmp_path / "mat.json").write_bytes(mat_files("A4")[1])
    (tmp_path / "part.jpg").write_bytes(jpeg_of(on_its_mat(piece_named(demo, "F4")), 30.0))
    more = {
        "export": ["--to", str(tmp_path / "out")],
        "plan": ["--json", "--limit", "1"],
        "thumbnail": ["--to", str(tmp_path / "small.png")],
        "targets": ["--to", str(tmp_path / "targets.pdf")],
        "sight": [str(tmp_path / "grey.jpg"), "--json"],
        "mat": ["--to", str(tmp_path / "mat.pdf")],
        "practice": ["--seed", "1", "--to", str(tmp_path / "exercise.keel")],
        "part": [
            *(str(tmp_path / "part.jpg"), "--mat", str(tmp_path / "mat.json")),
            *("--piece", "F4", "--json"),
        ],
    }
    lines = [
        [
            one.name,
            *([str(tmp_path / "demo.keel")] if one.of_build else []),
            *more.get(one.name, ["--json"]),
        ]
        for one in COMMANDS.values()
    ]
    done = subprocess.run(
        [sys.executable, "-c", ALL_COMMANDS, json.dumps([*lines, ["true", "none.keel"]])],
        capture_output=True,
        text=True,
        check=False,
    )
    assert done.returncode == 0, done.stderr
    *told, none = json.loads(done.stdout)
    for line, (code, out, err) in zip(lines, told, strict=True):
        assert (code, err) == (0, ""), (line, err)
        assert out
    assert json.loads(told[list(COMMANDS).index("true")][1])["checks"]
    assert none == [2, "", "hardkeel: no file none.keel\n"]


@pytest.mark.parametrize(
    "path", sorted(SOURCE.rglob("*.py")), ids=lambda p: str(p.relative_to(SOURCE))
)
def test_modules_stay_small_and_say_what_they_are(path: Path) -> None:
    text = path.read_text(encoding="utf-8")
    assert len(text.splitlines()) <= MOST_LINES
    assert ast.get_docstring(ast.parse(text))


def test_fonts_their_licence_and_the_style_sheet_are_shipped() -> None:
    resources = SOURCE / "resources"
    assert len(list((resources / "fonts").glob("*.ttf"))) == 6
    assert "SIL Open Font License" in (resources / "fonts" / "OFL.txt").read_text(encoding="utf-8")
    assert (resources / "style.qss").exists()


def test_help_and_version_need_nothing() -> None:
    for argument, words in (("--help", "hardkeel true FILE"), ("--version", hardkeel.__version__)):
        done = subprocess.run(
            [sys.executable, "-m", "hardkeel", argument],
            capture_output=True,
            text=True,
            check=False,
        )
        assert done.returncode == 0
        assert words in done.stdout


@pytest.mark.parametrize("arguments", [["--nonsense"], ["a", "b"], ["tail", "x.keel"]])
def test_what_is_not_understood_is_exit_2(arguments: list[str]) -> None:
    done = subprocess.run(
        [sys.executable, "-m", "hardkeel", *arguments], capture_output=True, text=True, check=False
    )
    assert (done.returncode, done.stdout, done.stderr.count("\n")) == (2, "", 1)


# what is needed to show the first page, and small; everything else in pyproject waits until it is wanted
AT_THE_START = {"numpy", "platformdirs", "pydantic", "PyQt6", "PyQt6-Qt6"}


def heavy_modules() -> set[str]:
    """Top-level modules of every library we run on, but for those of the start."""
    project = tomllib.loads((ROOT / "pyproject.toml").read_text())["project"]
    wanted = {re.split(r"[=<>~!\[ ]", one)[0] for one in project["dependencies"]} - AT_THE_START
    names = {
        module
        for module, distributions in packages_distributions().items()
        if {one.casefold() for one in distributions} & {one.casefold() for one in wanted}
        and module.isidentifier()
    }
    assert len(names) >= len(wanted)
    return names


def test_heavy_libraries_are_not_loaded_before_they_are_needed() -> None:
    heavy = heavy_modules() | {"PyQt6.QtPdf", "hardkeel.demo.kettlewick"}
    code = "import sys; import hardkeel.ui.app; print(sorted(set(sys.argv[1:]) & set(sys.modules)))"
    done = subprocess.run(
        [sys.executable, "-c", code, *heavy], capture_output=True, text=True, check=True
    )
    assert done.stdout.strip() == "[]"


def libraries_named(path: Path) -> set[str]:
    """Top-level modules that a file imports, at once or late."""
    found: set[str] = set()
    for node in ast.walk(tree_of(path)):
        match node:
            case ast.Import():
                found |= {alias.name for alias in node.names}
            case ast.ImportFrom(module=str(module)):
                found.add(module)
            case ast.Call(func=ast.Name(id="late"), args=[ast.Constant(value=str(name))]):
                found.add(name)
    return {name.partition(".")[0] for name in found}


def test_each_heavy_library_is_named_in_one_file() -> None:
    homes: dict[str, set[str]] = {}
    heavy = heavy_modules()  # asks every distribution that is installed: once is enough
    for path in SOURCE.rglob("*.py"):
        for name in libraries_named(path) & heavy:
            homes.setdefault(name, set()).add(str(path.relative_to(SOURCE)))
    assert {name: sorted(files) for name, files in homes.items() if len(files) > 1} == {}
    wanted = {"shapely", "ezdxf", "reportlab", "scipy", "PIL", "serial"}
    assert wanted <= set(homes)


def test_no_import_stands_in_the_middle_of_a_file() -> None:
    late = [
        f"{path.relative_to(SOURCE)}:{inner.lineno}"
        for path in SOURCE.rglob("*.py")
        for node in ast.walk(tree_of(path))
        if isinstance(node, ast.FunctionDef)
        for inner in ast.walk(node)
        if isinstance(inner, ast.Import | ast.ImportFrom)
    ]
    assert late == []


def public_widgets(path: Path) -> dict[str, set[str]]:
    """By class, the names that it makes public of what it makes: ``self.x = Thing()``."""
    found: dict[str, set[str]] = {}
    for kind in ast.walk(tree_of(path)):
        if not isinstance(kind, ast.ClassDef):
            continue
        names = found.setdefault(kind.name, set())
        for made in ast.walk(kind):
            if isinstance(made, ast.Assign) and isinstance(made.value, ast.Call):
                names |= {
                    target.attr
                    for target in made.targets
                    if isinstance(target, ast.Attribute) and not target.attr.startswith("_")
                }
    return found


def test_no_class_is_one_cut_in_two() -> None:
    """A class that hands many widgets to its neighbour is half of a class: cut it by subject."""
    counts = {
        f"{path.stem}.{name}": len(names)
        for path in (SOURCE / "ui").rglob("*.py")
        for name, names in public_widgets(path).items()
    }
    assert max(counts.values()) >= 5, "nothing is counted"
    assert {name: count for name, count in counts.items() if count > MOST_WIDGETS} == {}


# what is no sentence of ours: keys, type faces, names that Qt and the checker want, and the product's own
NO_WORDS = re.compile(
    r"(Ctrl|Alt)\+|Fusion$|Barlow|PyQt6|Hard Keel|Kettlewick|\w+Kind$|\w+Name$|Phase$|Q[A-Z]\w+$|\w+Page$"
)


def capitalised(path: Path) -> list[str]:
    """Literals that begin a sentence or stand as a heading: capital first, a letter after it."""
    tree = tree_of(path)
    documented = (ast.Module, ast.ClassDef, ast.FunctionDef)
    docs = {
        id(node.body[0].value)
        for node in ast.walk(tree)
        if isinstance(node, documented) and node.body and isinstance(node.body[0], ast.Expr)
    }
    annotations = {
        id(inner)
        for node in ast.walk(tree)
        for note in (getattr(node, "annotation", None), getattr(node, "returns", None))
        if note is not None
        for inner in ast.walk(note)
    }
    return [
        node.value
        for node in ast.walk(tree)
        if isinstance(node, ast.Constant)
        and isinstance(node.value, str)
        and id(node) not in docs | annotations
        and re.match(r"[A-Z][a-z]", node.value)
        and not NO_WORDS.match(node.value)
    ]


def test_sentences_and_headings_are_the_voices() -> None:
    told = {
        str(path.relative_to(SOURCE)): found
        for path in (SOURCE / "ui").rglob("*.py")
        if (found := capitalised(path))
    }
    assert told == {}


def test_no_closure_carries_a_change_into_the_document() -> None:
    """What is done is an edit by its name with its figures: `edits.set_station.of("F4", top=45.0)`."""
    anonymous = [
        f"{path.relative_to(SOURCE)}:{call.lineno}"
        for path in (SOURCE / "ui").rglob("*.py")
        for call in ast.walk(tree_of(path))
        if isinstance(call, ast.Call)
        and (
            (isinstance(call.func, ast.Attribute) and call.func.attr in ("apply", "_apply"))
            or (isinstance(call.func, ast.Name) and call.func.id == "Edit")
        )
        and any(isinstance(given, ast.Lambda) for given in call.args)
    ]
    assert anonymous == []


def test_what_undo_calls_a_step_is_said_by_the_voices() -> None:
    """No page names its steps itself: names stand with all other words."""
    found = []
    for path in (SOURCE / "ui").rglob("*.py"):
        for node in ast.walk(ast.parse(path.read_text(encoding="utf-8"))):
            name = (
                node.func.attr
                if isinstance(node, ast.Call) and isinstance(node.func, ast.Attribute)
                else ""
            )
            if name in ("apply", "_apply") and isinstance(node, ast.Call) and node.args:
                first = node.args[0]
                spoken = isinstance(first, ast.Constant) and isinstance(first.value, str)
                if isinstance(first, ast.JoinedStr) or spoken:
                    found.append(f"{path.relative_to(SOURCE)}:{node.lineno}")
    assert found == []
