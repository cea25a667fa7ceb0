"""Every pinned package installs on the Pythons that are promised: Debian 12's own first of all."""

import ast
import re
import sys
from importlib.metadata import distribution, packages_distributions
from pathlib import Path

import pytest
from packaging.requirements import Requirement
from packaging.specifiers import SpecifierSet
from packaging.tags import Tag, compatible_tags, cpython_tags, parse_tag, platform_tags
from packaging.utils import canonicalize_name

ROOT = Path(__file__).resolve().parent.parent
PYTHONS = ["3.11.2", "3.12.0", "3.13.0"]
PLATFORMS = list(platform_tags())
ONLY_FOR_MEASURING = "bench.txt"


def _pins() -> list[Requirement]:
    lines = [
        line
        for path in sorted((ROOT / "requirements").glob("*.txt"))
        if path.name != ONLY_FOR_MEASURING
        for line in path.read_text().splitlines()
        if re.match(r"[A-Za-z]", line)
    ]
    return [Requirement(line) for line in lines]


def _supported(python: str) -> set[Tag]:
    version = tuple(int(part) for part in python.split(".")[:2])
    interpreter = f"cp{version[0]}{version[1]}"
    return {
        *cpython_tags(version, platforms=PLATFORMS),
        *compatible_tags(version, interpreter=interpreter, platforms=PLATFORMS),
    }


def test_every_package_is_pinned() -> None:
    assert _pins()
    assert [str(pin) for pin in _pins() if not str(pin.specifier).startswith("==")] == []


@pytest.mark.parametrize("python", PYTHONS)
def test_every_pin_admits_the_python(python: str) -> None:
    refused = [
        str(pin)
        for pin in _pins()
        if not SpecifierSet(distribution(pin.name).metadata.get("Requires-Python") or "").contains(python)
    ]
    assert refused == []


def test_every_pin_has_a_wheel_for_debians_own_python() -> None:
    supported = _supported(PYTHONS[0])
    unfit = []
    for pin in _pins():
        wheel = distribution(pin.name).read_text("WHEEL") or ""
        tags = {tag for line in re.findall(r"^Tag: (.+)$", wheel, re.M) for tag in parse_tag(line)}
        if tags and not tags & supported:
            unfit.append((str(pin), sorted(map(str, tags))))
    assert unfit == []


@pytest.mark.parametrize("python", PYTHONS)
def test_whatever_a_pin_needs_on_a_python_is_pinned_too(python: str) -> None:
    """An older Python may need a package that a newer one has built in."""
    pinned = {canonicalize_name(pin.name) for pin in _pins()}
    place = {"python_full_version": python, "python_version": python.rpartition(".")[0], "extra": ""}
    lacking = [
        f"{pin.name} needs {needed}"
        for pin in _pins()
        for needed in map(Requirement, distribution(pin.name).requires or ())
        if canonicalize_name(needed.name) not in pinned
        if needed.marker is None or needed.marker.evaluate(place)
    ]
    assert lacking == []


def test_what_the_application_imports_is_installed_with_it() -> None:
    """Tests have more packages than the application: what only they bring must not be needed."""
    pins = (ROOT / "requirements" / "runtime.txt").read_text().splitlines()
    pinned = {canonicalize_name(line.partition("==")[0]) for line in pins if "==" in line}
    brought_by = packages_distributions()
    for path in (ROOT / "src" / "tallpage").rglob("*.py"):
        for name in _imported(path):
            if name in sys.stdlib_module_names or name == "tallpage":
                continue
            sources = {canonicalize_name(source) for source in brought_by.get(name, [])}
            assert sources & pinned, f"{path} imports {name}"


def _imported(path: Path) -> set[str]:
    names: set[str] = set()
    for node in ast.walk(ast.parse(path.read_text("utf-8"))):
        if isinstance(node, ast.Import):
            names |= {alias.name.partition(".")[0] for alias in node.names}
        elif isinstance(node, ast.ImportFrom) and node.module and not node.level:
            names.add(node.module.partition(".")[0])
    return names
