"""HTTP API of the addresses that are told what has finished."""

from __future__ import annotations

import secrets
from datetime import datetime
from typing import Annotated, Literal
from urllib.parse import urlsplit

from django.http import HttpRequest
from django.shortcuts import get_object_or_404
from django.utils import timezone
from ninja import Field, Router, Schema, Status

from tallpage.core.errors import HandOverError
from tallpage.server.people.guarding import person_of
from tallpage.server.signins.encryption import seal
from tallpage.server.webhooks.events import TRIAL, Event
from tallpage.server.webhooks.models import Delivery, Webhook
from tallpage.server.webhooks.noticing import look_for_news
from tallpage.server.webhooks.sending import require_address

router = Router(tags=["webhooks"])
_SECRET_BYTES = 32
_MOST_HOOKS = 50
_SHOWN = 20
_Events = Annotated[list[Event], Field(min_length=1, max_length=3)]


class DeliveryOut(Schema):
    """One message: of what, how often it was tried, and what was answered."""

    id: int
    event: str
    subject_id: int
    happened_at: datetime
    state: Literal["waiting", "sent", "failed"]
    tries: int
    next_at: datetime
    answer: str


class WebhookOut(Schema):
    """An address, what it is told of, and the latest messages to it."""

    id: int
    address: str
    host: str
    events: list[Event]
    active: bool
    deliveries: list[DeliveryOut]

    @classmethod
    def of(cls, hook: Webhook) -> WebhookOut:
        """An address as it is told."""
        return cls(
            id=hook.pk,
            address=hook.address,
            host=urlsplit(hook.address).netloc,
            events=hook.events,
            active=hook.active,
            deliveries=[DeliveryOut.from_orm(row) for row in hook.deliveries.all()[:_SHOWN]],
        )


class WebhookIn(Schema):
    """An address, and what it is told of."""

    address: str = Field(min_length=1, max_length=2_000)
    events: _Events


class ChangeWebhookIn(Schema):
    """What it is told of from now on, and whether it is."""

    events: _Events | None = None
    active: bool | None = None


class NewWebhookOut(Schema):
    """A new address, with the secret that messages to it are signed with: told only now."""

    webhook: WebhookOut
    secret: str


@router.get("/webhooks", response=list[WebhookOut], operation_id="list_webhooks")
def list_webhooks(request: HttpRequest) -> list[WebhookOut]:
    """Addresses that are told, with the latest messages."""
    return [WebhookOut.of(hook) for hook in Webhook.objects.all()]


@router.post("/webhooks", response={201: NewWebhookOut}, operation_id="add_webhook")
def add_webhook(request: HttpRequest, payload: WebhookIn) -> Status[NewWebhookOut]:
    """Have an address told from now on."""
    if Webhook.objects.count() >= _MOST_HOOKS:
        raise HandOverError(f"There are {_MOST_HOOKS} addresses already.", hint="Remove one first.")
    secret = secrets.token_urlsafe(_SECRET_BYTES)
    hook = Webhook.objects.create(
        address=require_address(payload.address.strip()),
        events=list(dict.fromkeys(payload.events)),
        sealed=seal({"secret": secret}),
        person=person_of(request),
    )
    return Status(201, NewWebhookOut(webhook=WebhookOut.of(hook), secret=secret))


@router.patch("/webhooks/{int:webhook_id}", response=WebhookOut, operation_id="change_webhook")
def change_webhook(request: HttpRequest, webhook_id: int, payload: ChangeWebhookIn) -> WebhookOut:
    """Change what an address is told of, or let it rest. What finishes meanwhile it is not told."""
    hook = get_object_or_404(Webhook, pk=webhook_id)
    hook.events = list(dict.fromkeys(payload.events)) if payload.events else hook.events
    if payload.active is not None:
        if payload.active and not hook.active:
            hook.looked_up_to = timezone.now()
        hook.active = payload.active
    hook.save()
    return WebhookOut.of(hook)


@router.delete("/webhooks/{int:webhook_id}", response={204: None}, operation_id="delete_webhook")
def delete_webhook(request: HttpRequest, webhook_id: int) -> Status[None]:
    """Tell an address nothing any more, and forget what it was told."""
    get_object_or_404(Webhook, pk=webhook_id).delete()
    return Status(204, None)


@router.post("/webhooks/{int:webhook_id}/trial", response=WebhookOut, operation_id="try_webhook")
def try_webhook(request: HttpRequest, webhook_id: int) -> WebhookOut:
    """Send a message that says nothing but that it is a trial."""
    hook = get_object_or_404(Webhook, pk=webhook_id)
    Delivery.objects.create(
        webhook=hook,
        event=TRIAL,
        happened_at=timezone.now(),
        body={"words": "A trial: nothing has finished."},
    )
    look_for_news()
    return WebhookOut.of(hook)


@router.post("/webhooks/messages/{int:delivery_id}/again", response=WebhookOut, operation_id="tell_again")
def tell_again(request: HttpRequest, delivery_id: int) -> WebhookOut:
    """Send a message once more, now."""
    row = get_object_or_404(Delivery, pk=delivery_id)
    Delivery.objects.filter(pk=row.pk).update(
        state=Delivery.State.WAITING, tries=0, next_at=timezone.now(), answer=""
    )
    look_for_news()
    return WebhookOut.of(row.webhook)
