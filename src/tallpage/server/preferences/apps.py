"""The settings' app."""

from django.apps import AppConfig


class PreferencesConfig(AppConfig):
    """What is wanted otherwise than usual."""

    name = "tallpage.server.preferences"
    label = "preferences"

    def ready(self) -> None:
        """Say which settings there are of what is shown."""
        from tallpage.server.preferences import own_settings

        own_settings.register()
