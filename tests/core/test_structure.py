"""What holds for the core as a whole."""

import importlib
import inspect
import re

import pytest

from tallpage.core import errors

NAMES = (
    "capture",
    "changes",
    "cut",
    "dressing",
    "fit",
    "handover",
    "leaves",
    "marks",
    "picture",
    "render",
    "text",
    "sizing",
    "sweep",
)
PACKAGES = [f"tallpage.core.{name}" for name in NAMES]


@pytest.mark.parametrize("name", PACKAGES)
def test_a_package_declares_exactly_what_it_exposes(name: str) -> None:
    package = importlib.import_module(name)
    exposed = {
        attribute
        for attribute, value in vars(package).items()
        if not attribute.startswith("_") and not inspect.ismodule(value)
    }
    assert exposed == set(package.__all__)


def test_the_drawn_tree_of_errors_is_the_real_one() -> None:
    drawn = set(re.findall(r"[A-Z][A-Za-z]+(?=\s{2,}|\n)", errors.__doc__.split("\n\n")[1] + "\n"))
    real = {
        name
        for name, value in vars(errors).items()
        if inspect.isclass(value) and issubclass(value, errors.TallPageError)
    }
    assert drawn == real


def test_every_error_has_a_code_of_its_own_and_says_what_to_do() -> None:
    kinds = [
        value
        for value in vars(errors).values()
        if inspect.isclass(value) and issubclass(value, errors.TallPageError)
    ]
    codes = [kind.code for kind in kinds]
    assert len(set(codes)) == len(codes)
