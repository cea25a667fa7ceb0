"""What is given away: a package of named streams with facts, and the channels that it can go through."""

from tallpage.core.handover._channels import Channel, FileChannel, FolderChannel, MemoryChannel, ZipChannel
from tallpage.core.handover._mail import Attachment, Letter, mails, read_addresses
from tallpage.core.handover._mail_server import IN_DOUBT, MailServer
from tallpage.core.handover._manifest import ManifestRow, manifest_csv, manifest_json
from tallpage.core.handover._package import Data, Item, with_manifest

__all__ = [
    "IN_DOUBT",
    "Attachment",
    "Channel",
    "Data",
    "FileChannel",
    "FolderChannel",
    "Item",
    "Letter",
    "MailServer",
    "ManifestRow",
    "MemoryChannel",
    "ZipChannel",
    "mails",
    "manifest_csv",
    "manifest_json",
    "read_addresses",
    "with_manifest",
]
