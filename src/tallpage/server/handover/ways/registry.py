"""Which class does which way out."""

from __future__ import annotations

from tallpage.server.handover.models import HandOver
from tallpage.server.handover.ways.base import WayOut
from tallpage.server.handover.ways.folder import FolderWay
from tallpage.server.handover.ways.link import LinkWay
from tallpage.server.handover.ways.mail import MailWay
from tallpage.server.handover.ways.pdf import PdfWay
from tallpage.server.handover.ways.upload import UploadWay

WAYS: dict[str, WayOut] = {
    HandOver.Way.FOLDER: FolderWay(),
    HandOver.Way.PDF: PdfWay(),
    HandOver.Way.LINK: LinkWay(),
    HandOver.Way.MAIL: MailWay(),
    HandOver.Way.UPLOAD: UploadWay(),
}
"""Those that take a while. What is saved at once has only its line in the log."""
