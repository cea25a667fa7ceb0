"""The saved sign-ins' app."""

from django.apps import AppConfig


class SignInsConfig(AppConfig):
    """Sign-ins by host."""

    name = "tallpage.server.signins"
    label = "signins"
