"""The Django application of the workshop."""

from django.apps import AppConfig


class WorkshopConfig(AppConfig):
    """Registers the models under the label ``workshop``."""

    name = "jamreel.workshop"
    label = "workshop"
    default_auto_field = "django.db.models.BigAutoField"
