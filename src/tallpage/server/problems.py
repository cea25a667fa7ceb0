"""What our errors look like on the wire: problem+json, RFC 9457. The only place that decides it."""

from __future__ import annotations

import errno
import logging
from http import HTTPStatus
from typing import Any

from django.conf import settings
from django.core.exceptions import RequestDataTooBig, SuspiciousOperation
from django.db import IntegrityError, OperationalError
from django.http import Http404, HttpRequest, HttpResponse, JsonResponse
from django.http.multipartparser import MultiPartParserError
from ninja import NinjaAPI
from ninja.errors import AuthenticationError, HttpError, ValidationError

from tallpage.core.errors import (
    AccountError,
    AddressError,
    ArchiveError,
    ChangedElsewhere,
    ClipError,
    CutError,
    FitError,
    FrameError,
    HandOverError,
    JoinError,
    ListError,
    PageError,
    PictureError,
    RoutineError,
    ScreenError,
    SettingError,
    StorageBusy,
    StorageError,
    TallPageError,
)
from tallpage.core.files import refusal_to_write
from tallpage.core.units import format_bytes
from tallpage.server.database import refusal_of

_log = logging.getLogger(__name__)

_STATUS: dict[type[TallPageError], HTTPStatus] = {
    AccountError: HTTPStatus.FORBIDDEN,
    AddressError: HTTPStatus.UNPROCESSABLE_ENTITY,
    ArchiveError: HTTPStatus.UNPROCESSABLE_ENTITY,
    PageError: HTTPStatus.UNPROCESSABLE_ENTITY,
    PictureError: HTTPStatus.UNPROCESSABLE_ENTITY,
    RoutineError: HTTPStatus.UNPROCESSABLE_ENTITY,
    FrameError: HTTPStatus.UNPROCESSABLE_ENTITY,
    CutError: HTTPStatus.UNPROCESSABLE_ENTITY,
    ClipError: HTTPStatus.UNPROCESSABLE_ENTITY,
    FitError: HTTPStatus.UNPROCESSABLE_ENTITY,
    JoinError: HTTPStatus.UNPROCESSABLE_ENTITY,
    HandOverError: HTTPStatus.UNPROCESSABLE_ENTITY,
    ListError: HTTPStatus.UNPROCESSABLE_ENTITY,
    ScreenError: HTTPStatus.UNPROCESSABLE_ENTITY,
    SettingError: HTTPStatus.UNPROCESSABLE_ENTITY,
    StorageBusy: HTTPStatus.SERVICE_UNAVAILABLE,  # before the storage errors that it is one of
    StorageError: HTTPStatus.INSUFFICIENT_STORAGE,
    ChangedElsewhere: HTTPStatus.CONFLICT,
}


def problem(status: int, code: str, sentence: str, hint: str = "", **more: Any) -> HttpResponse:
    """One problem+json response."""
    body = {
        "type": f"tallpage:{code}",
        "code": code,
        "title": sentence,
        "detail": hint,
        "status": status,
        **more,
    }
    return JsonResponse(body, status=status, content_type="application/problem+json")


def install(api: NinjaAPI) -> None:
    """Teach ``api`` how each exception is answered."""

    @api.exception_handler(TallPageError)
    def ours(_request: HttpRequest, error: TallPageError) -> HttpResponse:
        status = next(
            (code for kind, code in _STATUS.items() if isinstance(error, kind)), HTTPStatus.BAD_REQUEST
        )
        return problem(status, error.code, error.sentence, error.hint)

    @api.exception_handler(Http404)
    def missing(_request: HttpRequest, _error: Http404) -> HttpResponse:
        return problem(
            404, "not_found", "That is not here any more.", "It may have been deleted in another tab."
        )

    @api.exception_handler(ValidationError)
    def invalid(_request: HttpRequest, error: ValidationError) -> HttpResponse:
        first = error.errors[0] if error.errors else {}
        place = ".".join(str(part) for part in first.get("loc", ())[2:]) or "The request"
        return problem(
            422, "invalid", f"{place}: {first.get('msg', 'is not valid')}.", "Correct it and send it again."
        )

    @api.exception_handler(AuthenticationError)
    def refused(_request: HttpRequest, _error: AuthenticationError) -> HttpResponse:
        return problem(403, "csrf", "The request did not come from Tall Page's own page.", "Reload the page.")

    @api.exception_handler(HttpError)
    def plain(_request: HttpRequest, error: HttpError) -> HttpResponse:
        return problem(error.status_code, "refused", str(error))

    @api.exception_handler(RequestDataTooBig)
    def too_big(_request: HttpRequest, _error: RequestDataTooBig) -> HttpResponse:
        most = settings.DATA_UPLOAD_MAX_MEMORY_SIZE
        return problem(
            HTTPStatus.REQUEST_ENTITY_TOO_LARGE,
            "too_large",
            f"The request is over {format_bytes(most)}.",
            "Send it in parts, or as a file.",
        )

    @api.exception_handler(MultiPartParserError)
    @api.exception_handler(SuspiciousOperation)
    def malformed(_request: HttpRequest, _error: Exception) -> HttpResponse:
        return problem(
            400, "form_malformed", "The form cannot be read.", "Send fewer fields and files in it."
        )

    @api.exception_handler(OperationalError)
    def database_refuses(request: HttpRequest, error: OperationalError) -> HttpResponse:
        refusal = refusal_of(error)
        return ours(request, refusal) if refusal else unexpected(request, error)

    @api.exception_handler(OSError)
    def disk_refuses(request: HttpRequest, error: OSError) -> HttpResponse:
        if error.errno == errno.ENAMETOOLONG:
            return problem(422, "name_too_long", "The file's name is too long.", "Give it a shorter one.")
        refusal = refusal_to_write(error)
        if refusal is None:
            return unexpected(request, error)
        _log.error("the disk refused at %s: %s", request.path, error)
        return ours(request, refusal)

    @api.exception_handler(OverflowError)
    @api.exception_handler(IntegrityError)
    def out_of_range(_request: HttpRequest, _error: Exception) -> HttpResponse:
        return problem(422, "invalid", "A number is out of range.", "Correct it and send it again.")

    @api.exception_handler(UnicodeEncodeError)
    def half_character(_request: HttpRequest, _error: UnicodeEncodeError) -> HttpResponse:
        return problem(
            422, "invalid", "A text holds half of a character.", "Type it anew, and send it again."
        )

    @api.exception_handler(RecursionError)
    def too_deep(_request: HttpRequest, _error: RecursionError) -> HttpResponse:
        return problem(422, "invalid", "The request is nested too deeply.", "Send it in a simpler form.")

    @api.exception_handler(Exception)
    def unexpected(request: HttpRequest, error: Exception) -> HttpResponse:
        _log.error("unexpected error at %s", request.path, exc_info=error)
        return problem(
            500,
            "internal",
            "Something went wrong inside Tall Page.",
            "Nothing that was saved is lost. The server's log says more.",
        )
