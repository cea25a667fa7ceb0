"""Pixels + limit -> file: the best-looking file that is never over the limit."""

from tallpage.core.fit._job import FitOrder, fit_order, foretell_order, takes_transparency
from tallpage.core.fit._watching import FitWatch, Verdict
from tallpage.core.fit.advice._pieces import Advice
from tallpage.core.fit.encoding._candidates import Candidate, fit_with
from tallpage.core.fit.encoding._formats import FORMATS, Format, FormatRules, require_formats
from tallpage.core.fit.encoding._memory import FitMemory
from tallpage.core.fit.encoding._recipes import Choice
from tallpage.core.fit.judging._content import Content, read_content
from tallpage.core.fit.judging._fidelity import ACCEPTABLE_FIDELITY, closeness, fidelity, fidelity_in_words
from tallpage.core.fit.judging._weight import WeightBand, weight_line
from tallpage.core.fit.judging._why import why
from tallpage.core.fit.judging._worst import worst_places
from tallpage.core.fit.prediction._curve import Curve
from tallpage.core.fit.search._best import FitResult, fit_raster
from tallpage.core.fit.search._highest_step import SearchOutcome, search_quality_step

__all__ = [
    "ACCEPTABLE_FIDELITY",
    "FORMATS",
    "Advice",
    "Candidate",
    "Choice",
    "Content",
    "Curve",
    "FitMemory",
    "FitOrder",
    "FitResult",
    "FitWatch",
    "Format",
    "FormatRules",
    "SearchOutcome",
    "Verdict",
    "WeightBand",
    "closeness",
    "fidelity",
    "fidelity_in_words",
    "fit_order",
    "fit_raster",
    "fit_with",
    "foretell_order",
    "read_content",
    "require_formats",
    "search_quality_step",
    "takes_transparency",
    "weight_line",
    "why",
    "worst_places",
]
