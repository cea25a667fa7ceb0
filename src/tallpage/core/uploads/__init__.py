"""Uploading a file to where it is published. Each way of uploading is a module behind one interface."""

from tallpage.core.uploads._answer import Answer, Outcome
from tallpage.core.uploads._file import UploadFile
from tallpage.core.uploads._folder import FolderTarget
from tallpage.core.uploads._form import FormTarget
from tallpage.core.uploads._http import ask, require_web
from tallpage.core.uploads._sending import Target, upload
from tallpage.core.uploads._webdav import WebDavTarget

__all__ = [
    "Answer",
    "FolderTarget",
    "FormTarget",
    "Outcome",
    "Target",
    "UploadFile",
    "WebDavTarget",
    "ask",
    "require_web",
    "upload",
]
