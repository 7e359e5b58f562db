"""Makes the demo bench when there is none; what was entered since is kept."""

from datetime import date
from typing import Any

from django.core.management.base import BaseCommand, CommandParser
from django.utils import timezone

from jamreel.workshop.demo import build


class Command(BaseCommand):
    help = __doc__

    def add_arguments(self, parser: CommandParser) -> None:
        parser.add_argument("--today", type=date.fromisoformat, help="build it for this day")

    def handle(self, *args: Any, **options: Any) -> None:
        build(options["today"] or timezone.localdate())
