"""Pictures of pages as a PDF: tall, or divided over sheets of paper, with the page's words and links."""

from tallpage.core.pdf._making import PdfMade, PdfOrder, PdfPart, make_pdf
from tallpage.core.pdf._paper import TALL, Paper, parse_paper

__all__ = ["TALL", "Paper", "PdfMade", "PdfOrder", "PdfPart", "make_pdf", "parse_paper"]
