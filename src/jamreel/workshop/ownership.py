"""The one place where it is decided whose rows a request may see."""

from typing import TypeVar

from django.contrib.auth.base_user import AbstractBaseUser
from django.contrib.auth.models import AnonymousUser
from django.db.models import QuerySet
from django.http import Http404

from jamreel.workshop.models import Owned, Workshop

Row = TypeVar("Row", bound=Owned)


def workshop_of(user: AbstractBaseUser | AnonymousUser) -> Workshop:
    """Return the workshop that a user works in. Raises Http404 for a user without one."""
    known: Workshop | None = getattr(user, "works_in", None)
    if known is None and user.pk:
        known = Workshop.objects.filter(members=user.pk).order_by("pk").first()
    if known is None:
        raise Http404("no workshop")
    return known


def rows(model: type[Row], workshop: Workshop) -> QuerySet[Row]:
    """Return a workshop's rows of one model; nothing reads rows but through this."""
    return model._default_manager.filter(workshop=workshop)


def row(model: type[Row], workshop: Workshop, pk: int) -> Row:
    """Return one row of a workshop. Raises Http404, the same for missing and for another's."""
    found = rows(model, workshop).filter(pk=pk).first()
    if found is None:
        raise Http404(f"no such {model.__name__.lower()}")
    return found
