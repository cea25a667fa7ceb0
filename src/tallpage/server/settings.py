"""Django settings. Everything that differs between machines comes from the environment."""

from __future__ import annotations

import os
from datetime import timedelta
from pathlib import Path

from csp.constants import NONE, SELF
from django.core.exceptions import ImproperlyConfigured

from tallpage.core.capture import PrivateHosts
from tallpage.core.files import storage_errors
from tallpage.core.sweep import workers_for_this_machine
from tallpage.server.environment import whole_number
from tallpage.server.exposure import allows_private
from tallpage.server.home import home_folder, secret_key

PACKAGE = Path(__file__).resolve().parent.parent
PROJECT = PACKAGE.parent.parent
HOME = home_folder()
OUT = Path(os.environ.get("TALLPAGE_OUT") or HOME / "out")

SECRET_KEY = secret_key(HOME)
DEBUG = os.environ.get("TALLPAGE_DEBUG") == "1"
HOST = os.environ.get("TALLPAGE_HOST", "127.0.0.1")
PORT = whole_number("TALLPAGE_PORT", 8_600, most=65_535)
LOOPBACK = HOST in ("127.0.0.1", "::1", "localhost")
OTHER_HOSTS = os.environ.get("TALLPAGE_ALLOWED_HOSTS", "").split()
ALLOWED_HOSTS = ["127.0.0.1", "localhost", "[::1]", *OTHER_HOSTS]

# On loopback there is one person, and nobody signs in. Wherever others come, each has an account.
ACCOUNTS = not LOOPBACK or bool(OTHER_HOSTS) or os.environ.get("TALLPAGE_ACCOUNTS") == "1"
TRUSTED_PROXIES = os.environ.get("TALLPAGE_TRUSTED_PROXY", "").split()

# Private and loopback pages may be taken by whoever sits at this machine; a server that others
# reach, by itself or through a proxy on this machine, must not open its own network to them.
ALLOW_PRIVATE = allows_private(
    os.environ.get("TALLPAGE_ALLOW_PRIVATE", ""), loopback=LOOPBACK, other_hosts=OTHER_HOSTS
)
PRIVATE_HOSTS = PrivateHosts.parse(os.environ.get("TALLPAGE_PRIVATE_HOSTS", ""))

INSTALLED_APPS = [
    "django.contrib.admin",
    "django.contrib.auth",
    "django.contrib.contenttypes",
    "django.contrib.sessions",
    "django.contrib.messages",
    "django.contrib.staticfiles",
    "axes",
    "django_q",
    "django_vite",
    "ninja",
    "tallpage.server.people",
    "tallpage.server.jobs",
    "tallpage.server.signins",
    "tallpage.server.preferences",
    "tallpage.server.shelf",
    "tallpage.server.outlets",
    "tallpage.server.sweeps",
    "tallpage.server.archives",
    "tallpage.server.joins",
    "tallpage.server.clips",
    "tallpage.server.handover",
    "tallpage.server.routines",
    "tallpage.server.webhooks",
    "tallpage.server.upkeep",
]
MIDDLEWARE = [
    "django.middleware.security.SecurityMiddleware",
    "tallpage.server.people.proxy.trusted_proxy",
    "tallpage.server.exposure.same_origin_resources",
    "tallpage.server.exposure.secure_cookies",
    "tallpage.server.reserve.room_to_delete",
    "whitenoise.middleware.WhiteNoiseMiddleware",
    "csp.middleware.CSPMiddleware",
    "django.contrib.sessions.middleware.SessionMiddleware",
    "django.middleware.common.CommonMiddleware",
    "django.middleware.csrf.CsrfViewMiddleware",
    "django.contrib.auth.middleware.AuthenticationMiddleware",
    "tallpage.server.people.guarding.Guard",
    "django.contrib.messages.middleware.MessageMiddleware",
    "django.middleware.clickjacking.XFrameOptionsMiddleware",
    "axes.middleware.AxesMiddleware",
]
AUTHENTICATION_BACKENDS = [
    "axes.backends.AxesStandaloneBackend",
    "django.contrib.auth.backends.ModelBackend",
]
PASSWORD_HASHERS = ["tallpage.server.people.hashing.FewAtOnce"]
_RULES = "django.contrib.auth.password_validation"
AUTH_PASSWORD_VALIDATORS = [
    {"NAME": f"{_RULES}.UserAttributeSimilarityValidator"},
    {"NAME": f"{_RULES}.MinimumLengthValidator", "OPTIONS": {"min_length": 10}},
    {"NAME": f"{_RULES}.CommonPasswordValidator"},
    {"NAME": f"{_RULES}.NumericPasswordValidator"},
]
LOGIN_URL = "/account/sign-in"
AXES_FAILURE_LIMIT = 5
AXES_COOLOFF_TIME = timedelta(minutes=15)
AXES_LOCKOUT_PARAMETERS = [["username", "ip_address"]]
AXES_RESET_ON_SUCCESS = True
AXES_LOCKOUT_CALLABLE = "tallpage.server.people.pages.locked"
AXES_VERBOSE = False
ROOT_URLCONF = "tallpage.server.urls"
WSGI_APPLICATION = "tallpage.server.wsgi.application"
TEMPLATES = [
    {
        "BACKEND": "django.template.backends.django.DjangoTemplates",
        "DIRS": [PACKAGE / "server" / "templates"],
        "APP_DIRS": True,
        "OPTIONS": {
            "context_processors": [
                "django.template.context_processors.request",
                "django.contrib.auth.context_processors.auth",
                "django.contrib.messages.context_processors.messages",
            ]
        },
    }
]

DATABASES = {
    "default": {
        "ENGINE": "django.db.backends.sqlite3",
        "NAME": HOME / "tallpage.sqlite3",
        "OPTIONS": {
            # Writers queue up at the start of a transaction instead of failing in its middle.
            "transaction_mode": "IMMEDIATE",
            "timeout": 20,
            "init_command": "PRAGMA journal_mode=WAL; PRAGMA synchronous=NORMAL;",
        },
    }
}
DEFAULT_AUTO_FIELD = "django.db.models.BigAutoField"
USE_TZ = True
TIME_ZONE = "UTC"
LANGUAGE_CODE = "en-gb"

# Mail that leaves: smtp://, smtp+starttls:// or smtps:// with the server that takes it.
MAIL_SERVER = os.environ.get("TALLPAGE_MAIL", "")
MAIL_FROM = os.environ.get("TALLPAGE_MAIL_FROM", "") or "tallpage@localhost"
MAIL_LIMIT_BYTES = whole_number("TALLPAGE_MAIL_LIMIT_KB", 10_000, most=1_000_000) * 1_000

PAGE_WORKERS = whole_number("TALLPAGE_PAGE_WORKERS", min(16, workers_for_this_machine()), most=64)
FILE_WORKERS = whole_number("TALLPAGE_FILE_WORKERS", 1, most=64)

# Each is a browser of its own.
LIVE_PAGES = whole_number("TALLPAGE_LIVE_PAGES", 4, most=32)

# Where tickets are kept: in the database, or with several machines in a Redis that all reach.
BROKER = os.environ.get("TALLPAGE_BROKER", "")
if BROKER and not BROKER.startswith(("redis://", "rediss://", "unix://")):
    raise ImproperlyConfigured("TALLPAGE_BROKER is the address of a Redis, like redis://host:6379/0.")

# Two queues, so that a long capture never keeps a file waiting. Which one a worker process
# serves is told by Q_CLUSTER_NAME.
_TICKETS_IN_THE_DATABASE = {"orm": "default", "broker_class": "tallpage.server.jobs.broker.BellBroker"}
Q_CLUSTER = {
    "name": "tallpage",
    **({"redis": BROKER} if BROKER else _TICKETS_IN_THE_DATABASE),
    "workers": 1,
    "timeout": 3_000,
    "retry": 3_600,
    "max_attempts": 1,
    "ack_failures": True,
    "save_limit": -1,
    "catch_up": False,
    "log_level": "WARNING",
    "poll": 2.0,  # a bell tells of tickets sooner
    "guard_cycle": 2,
    "ALT_CLUSTERS": {
        "pages": {"workers": PAGE_WORKERS},
        "files": {"workers": FILE_WORKERS},
    },
}

STATIC_URL = "static/"
FRONTEND_BUILD = PROJECT / "frontend" / "dist"
STATICFILES_DIRS = [FRONTEND_BUILD] if FRONTEND_BUILD.is_dir() else []
WHITENOISE_USE_FINDERS = True
WHITENOISE_AUTOREFRESH = DEBUG
# The build puts a digest into each name: what has one never changes under it.
WHITENOISE_IMMUTABLE_FILE_TEST = r"^.+-[0-9A-Za-z_-]{8}\.[0-9a-z]+$"
DJANGO_VITE = {"default": {"manifest_path": FRONTEND_BUILD / "manifest.json"}}

CONTENT_SECURITY_POLICY = {
    "DIRECTIVES": {
        "default-src": [NONE],
        "script-src": [SELF],
        "style-src": [SELF],
        "font-src": [SELF],
        "img-src": [SELF, "data:", "blob:"],
        "media-src": [SELF],
        "connect-src": [SELF],
        "form-action": [SELF],
        "frame-ancestors": [NONE],
        "base-uri": [NONE],
        "manifest-src": [SELF],
    }
}
# A proxy in front that speaks TLS says so. A client that says so of itself only makes its own
# cookies stricter.
SECURE_PROXY_SSL_HEADER = ("HTTP_X_FORWARDED_PROTO", "https")
SECURE_CONTENT_TYPE_NOSNIFF = True
SECURE_REFERRER_POLICY = "same-origin"
SECURE_CROSS_ORIGIN_OPENER_POLICY = "same-origin"
X_FRAME_OPTIONS = "DENY"
SESSION_COOKIE_SAMESITE = "Strict"
CSRF_COOKIE_SAMESITE = "Strict"

# The body of a request is streamed to a file in the data folder above this size.
FILE_UPLOAD_MAX_MEMORY_SIZE = 1_000_000
DATA_UPLOAD_MAX_MEMORY_SIZE = 8_000_000  # a list of 20,000 pages
FILE_UPLOAD_TEMP_DIR = HOME / "incoming"
with storage_errors(HOME):
    FILE_UPLOAD_TEMP_DIR.mkdir(exist_ok=True)

LOGGING = {
    "version": 1,
    "disable_existing_loggers": False,
    "formatters": {"line": {"format": "%(asctime)s %(levelname)s %(name)s: %(message)s"}},
    "handlers": {"console": {"class": "logging.StreamHandler", "formatter": "line"}},
    "root": {"handlers": ["console"], "level": "WARNING"},
}
