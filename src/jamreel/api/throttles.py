"""How often what is costly, or could be guessed at, may be asked."""

from django.http import HttpRequest
from ninja.throttling import SimpleRateThrottle

from jamreel.api.auth import address_of, bench_of


class ByAddress(SimpleRateThrottle):
    """Counts what one address asks of one kind."""

    def __init__(self, rate: str, scope: str) -> None:
        self.scope = scope
        super().__init__(rate)

    def get_cache_key(self, request: HttpRequest) -> str | None:
        """Return what is counted under."""
        return f"address-{self.scope}-{address_of(request)}"


class ByBench(ByAddress):
    """Counts what one bench asks of one kind."""

    def get_cache_key(self, request: HttpRequest) -> str | None:
        """Return what is counted under."""
        return f"bench-{self.scope}-{bench_of(request).pk}"


SIGN_INS = ByAddress("40/m", "sign-in")
SIGN_UPS = ByAddress("20/h", "sign-up")
IMPORTS_BY_BENCH = ByBench("40/m", "import")
DAYS_BY_BENCH = ByBench("30/m", "day")
PHOTOS_BY_BENCH = ByBench("30/m", "photo")
CLOSE_BY_BENCH = ByBench("240/m", "close")
