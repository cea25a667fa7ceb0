"""HTTP API of the saved sign-ins."""

from __future__ import annotations

from django.db.models import QuerySet
from django.http import HttpRequest
from django.shortcuts import get_object_or_404
from ninja import File, Form, Router, Status, UploadedFile

from tallpage.core.capture import FormSignIn
from tallpage.server.signins import keeping
from tallpage.server.signins.models import SavedSignIn
from tallpage.server.signins.schemas import BasicIn, FormIn, SignInOut

router = Router(tags=["sign-ins"])


@router.get("/sign-ins", response=list[SignInOut], operation_id="list_sign_ins")
def list_sign_ins(request: HttpRequest) -> QuerySet[SavedSignIn]:
    """Which hosts pages are opened signed in at."""
    return SavedSignIn.objects.all()


@router.put("/sign-ins/basic", response=SignInOut, operation_id="save_basic_sign_in")
def save_basic(request: HttpRequest, payload: BasicIn) -> SavedSignIn:
    """Save a name and password for the server's own sign-in, in place of what was saved for the host."""
    return keeping.save_basic(payload.host, payload.name, payload.password)


@router.put("/sign-ins/form", response=SignInOut, operation_id="save_form_sign_in")
def save_form(request: HttpRequest, payload: FormIn) -> SavedSignIn:
    """Save how a sign-in page is filled in, in place of what was saved for the host."""
    return keeping.save_form(payload.host, FormSignIn(**payload.dict(exclude={"host"})))


@router.post("/sign-ins/state", response=SignInOut, operation_id="save_state_sign_in")
def save_state(request: HttpRequest, host: Form[str], file: File[UploadedFile]) -> SavedSignIn:
    """Save cookies from a file, in place of what was saved for the host."""
    return keeping.save_state(host, file.read())


@router.delete("/sign-ins/{sign_in_id}", response={204: None}, operation_id="delete_sign_in")
def delete_sign_in(request: HttpRequest, sign_in_id: int) -> Status[None]:
    """Forget a sign-in."""
    get_object_or_404(SavedSignIn, pk=sign_in_id).delete()
    return Status(204, None)
