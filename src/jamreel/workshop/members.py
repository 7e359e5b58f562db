"""Who a session belongs to, and the workshop that they work in: read together, on every request."""

from django.contrib.auth.backends import ModelBackend
from django.contrib.auth.models import User

from jamreel.workshop.models import Workshop


class MemberBackend(ModelBackend):
    """Users by name and password; a member comes with their workshop."""

    def get_user(self, user_id: int) -> User | None:
        """Return the user of a session, None for one who is gone or shut out."""
        members = Workshop.members.through._default_manager.select_related("user", "workshop")
        found = members.filter(user_id=user_id).order_by("workshop_id").first()
        if found is None:
            return super().get_user(user_id)
        user: User = found.user
        user.__dict__["works_in"] = found.workshop
        return user if self.user_can_authenticate(user) else None
