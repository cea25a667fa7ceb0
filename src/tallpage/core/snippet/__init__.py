"""A picture as it goes into a page: HTML and Markdown that show the file which fits a screen best."""

from tallpage.core.snippet._images import SnippetImage, same_shape, shown_width_px
from tallpage.core.snippet._writing import SnippetWords, html, markdown

__all__ = ["SnippetImage", "SnippetWords", "html", "markdown", "same_shape", "shown_width_px"]
