"""Django settings. Everything that changes between machines comes from the environment.

What each variable means stands in docs/running; `environment` reads them.
"""

from typing import Any

from csp.constants import NONE, SELF

from jamreel.site import environment
from jamreel.site.environment import ENV

DATA = ENV.data
FRONTEND = ENV.frontend
DEMO = ENV.demo
DEMO_USER = "heron-barge"
SIGN_UP_OPEN = ENV.sign_up
BEHIND_PROXY = ENV.proxy

SECRET_KEY = environment.secret()
DEBUG = False
ALLOWED_HOSTS = list(ENV.hosts)

INSTALLED_APPS = [
    "django.contrib.auth",
    "django.contrib.contenttypes",
    "django.contrib.sessions",
    "axes",
    "jamreel.workshop",
]
MIDDLEWARE = [
    "jamreel.site.middleware.Requests",
    "django.middleware.security.SecurityMiddleware",
    # No answer holds a secret beside what a stranger can put into it: the token of writes travels
    # in a cookie and a header only. The middleware pads what it compresses all the same.
    "django.middleware.gzip.GZipMiddleware",
    "csp.middleware.CSPMiddleware",
    "whitenoise.middleware.WhiteNoiseMiddleware",
    "django.contrib.sessions.middleware.SessionMiddleware",
    "django.middleware.common.CommonMiddleware",
    "django.middleware.csrf.CsrfViewMiddleware",
    "django.contrib.auth.middleware.AuthenticationMiddleware",
    "django.middleware.clickjacking.XFrameOptionsMiddleware",
    "axes.middleware.AxesMiddleware",
]
AUTHENTICATION_BACKENDS = [
    "axes.backends.AxesStandaloneBackend",
    "jamreel.workshop.members.MemberBackend",
]
ROOT_URLCONF = "jamreel.site.urls"
WSGI_APPLICATION = "jamreel.site.wsgi.application"

DATABASES: dict[str, dict[str, Any]] = {
    "default": {
        "ENGINE": "django.db.backends.sqlite3",
        "NAME": environment.DATABASE,
        "CONN_MAX_AGE": None,
        "OPTIONS": {
            # A write takes the lock when it begins, so two tabs queue instead of dead-locking.
            "transaction_mode": "IMMEDIATE",
            # Writes are short; who waits longer than this is told that the bench is busy [s].
            "timeout": 5,
            "init_command": (
                "PRAGMA journal_mode=WAL; PRAGMA synchronous=NORMAL; PRAGMA foreign_keys=ON;"
            ),
        },
        # In memory, parallel requests of the browser test would lock each other out.
        "TEST": {"NAME": DATA / "test.sqlite3"},
    }
}
# Locks of what is done one at a time, whichever process does it.
SLOTS = DATA / "slots"
# On disk, so that all workers count together.
CACHES = {
    "default": {
        "BACKEND": "django.core.cache.backends.filebased.FileBasedCache",
        "LOCATION": DATA / "tries",
        "OPTIONS": {"MAX_ENTRIES": 20_000},
    },
    # Woven bodies pulled tight: some 100 kB each.
    "close_views": {
        "BACKEND": "django.core.cache.backends.filebased.FileBasedCache",
        "LOCATION": DATA / "close-views",
        "OPTIONS": {"MAX_ENTRIES": 400},
        "TIMEOUT": None,
    },
}

PASSWORD_HASHERS = ["django.contrib.auth.hashers.Argon2PasswordHasher"]
AUTH_PASSWORD_VALIDATORS = [
    {"NAME": f"django.contrib.auth.password_validation.{name}"}
    for name in (
        "UserAttributeSimilarityValidator",
        "MinimumLengthValidator",
        "CommonPasswordValidator",
    )
]
AXES_FAILURE_LIMIT = 8
AXES_COOLOFF_TIME = 0.25  # hours
# The pair: a stranger locks out the address that guesses, not the maker.
AXES_LOCKOUT_PARAMETERS = [["username", "ip_address"]]
AXES_CLIENT_IP_CALLABLE = "jamreel.api.auth.address_of"
AXES_RESET_ON_SUCCESS = True
AXES_LOCKOUT_CALLABLE = "jamreel.api.session.locked_out"
AXES_VERBOSE = False
SILENCED_SYSTEM_CHECKS = [
    # A bench may be one name of many in a domain, and may move: neither all names below it nor
    # the browsers' own list are ours to bind. JAMREEL_HSTS_SECONDS says for how long this one is.
    "security.W005",
    "security.W021",
]

SESSION_COOKIE_NAME = "jamreel_session"
SESSION_COOKIE_SAMESITE = "Strict"
CSRF_COOKIE_NAME = "jamreel_csrf"
CSRF_COOKIE_SAMESITE = "Strict"
CSRF_FAILURE_VIEW = "jamreel.site.faults.not_from_here"
X_FRAME_OPTIONS = "DENY"
SECURE_REFERRER_POLICY = "same-origin"
SESSION_COOKIE_SECURE = CSRF_COOKIE_SECURE = SECURE_SSL_REDIRECT = ENV.https
SECURE_HSTS_SECONDS = ENV.hsts_seconds if ENV.https else 0
SECURE_REDIRECT_EXEMPT = [r"^healthz$"]
if ENV.proxy:
    SECURE_PROXY_SSL_HEADER = ("HTTP_X_FORWARDED_PROTO", "https")
CONTENT_SECURITY_POLICY = {
    "DIRECTIVES": {
        "default-src": [NONE],
        "script-src": [SELF],
        "style-src": [SELF],
        "font-src": [SELF],
        "img-src": [SELF],
        "connect-src": [SELF],
        "form-action": [SELF],
        "base-uri": [NONE],
        "frame-ancestors": [NONE],
    }
}

STATIC_URL = "/static/"
WHITENOISE_ROOT = FRONTEND
# Vite puts a hash of the content into every name under assets/.
WHITENOISE_IMMUTABLE_FILE_TEST = r"^/assets/"

USE_TZ = True
TIME_ZONE = "UTC"
LANGUAGE_CODE = "en"
DATA_UPLOAD_MAX_MEMORY_SIZE = environment.MOST_BODY
LOGGING = environment.logging_of(ENV)
