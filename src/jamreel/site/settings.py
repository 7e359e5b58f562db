"""Django settings. Everything that changes between machines comes from the environment.

JAMREEL_DATA: folder for the database and the secret (default: ``var`` in the checkout).
JAMREEL_DEMO: 1 to offer the demo bench through one button.
"""

import os
import secrets
from pathlib import Path
from typing import Any

from csp.constants import NONE, SELF

ROOT = Path(__file__).resolve().parents[3]
DATA = Path(os.environ.get("JAMREEL_DATA", ROOT / "var"))
FRONTEND = Path(os.environ.get("JAMREEL_FRONTEND", ROOT / "frontend" / "dist"))
DEMO = os.environ.get("JAMREEL_DEMO") == "1"


def _secret() -> str:
    """Return the secret of this installation, made on its first run and readable by it alone."""
    DATA.mkdir(parents=True, exist_ok=True)
    kept = DATA / "secret_key"
    try:
        handle = os.open(kept, os.O_WRONLY | os.O_CREAT | os.O_EXCL, 0o600)
    except FileExistsError:
        return kept.read_text()
    with os.fdopen(handle, "w") as file:
        file.write(secrets.token_urlsafe(50))
    return kept.read_text()


SECRET_KEY = _secret()
DEBUG = False
ALLOWED_HOSTS = ["127.0.0.1", "localhost", "testserver"]

INSTALLED_APPS = [
    "django.contrib.auth",
    "django.contrib.contenttypes",
    "django.contrib.sessions",
    "axes",
    "jamreel.workshop",
]
MIDDLEWARE = [
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
    "django.contrib.auth.backends.ModelBackend",
]
ROOT_URLCONF = "jamreel.site.urls"
WSGI_APPLICATION = "jamreel.site.wsgi.application"

DATABASES: dict[str, dict[str, Any]] = {
    "default": {
        "ENGINE": "django.db.backends.sqlite3",
        "NAME": DATA / "jamreel.sqlite3",
        "CONN_MAX_AGE": None,
        "OPTIONS": {
            # A write takes the lock when it begins, so two tabs queue instead of dead-locking.
            "transaction_mode": "IMMEDIATE",
            "timeout": 10,
            "init_command": (
                "PRAGMA journal_mode=WAL; PRAGMA synchronous=NORMAL; PRAGMA foreign_keys=ON;"
            ),
        },
        # In memory, parallel requests of the browser test would lock each other out.
        "TEST": {"NAME": DATA / "test.sqlite3"},
    }
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
AXES_LOCKOUT_PARAMETERS = ["username"]
AXES_RESET_ON_SUCCESS = True
AXES_LOCKOUT_CALLABLE = "jamreel.api.session.locked_out"
AXES_VERBOSE = False
SILENCED_SYSTEM_CHECKS = ["axes.W006"]  # by user name alone: every client here is 127.0.0.1

SESSION_COOKIE_NAME = "jamreel_session"
SESSION_COOKIE_SAMESITE = "Strict"
CSRF_COOKIE_NAME = "jamreel_csrf"
CSRF_COOKIE_SAMESITE = "Strict"
X_FRAME_OPTIONS = "DENY"
SECURE_REFERRER_POLICY = "same-origin"
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
DATA_UPLOAD_MAX_MEMORY_SIZE = 256 * 1024
