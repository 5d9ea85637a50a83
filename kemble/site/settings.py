"""Settings. Everything a place may differ in comes from the environment; nothing secret lies in the repository.

KEMBLE_DATA        folder of the database and the secret key (default: .data beside the code)
KEMBLE_HOSTS       further host names to answer to, separated by commas
KEMBLE_TLS         1 when a proxy speaks TLS before it, "own" to speak TLS by a certificate of its own (docs/door.md):
                   cookies are then sent over TLS alone
KEMBLE_PROXY       addresses of reverse proxies whose word on who asks is believed, separated by commas (docs/door.md)
KEMBLE_ASK         1 to ask for the password always: no key is made at the start
KEMBLE_PASSPHRASE  what seals the automatic backups, and opens them again; without it they lie there as they are
KEMBLE_SCALE       address of a real scale, such as /dev/ttyUSB0 or socket://192.0.2.7:4001 (see docs/scale.md)
KEMBLE_PROBE       address of a real thermometer, likewise (see docs/probe.md)
KEMBLE_DEBUG       1 for Django's debug pages, on a developer's own machine
"""

import os
import re
import tempfile
from pathlib import Path

from csp.constants import NONCE, NONE, SELF
from django.core.management.utils import get_random_secret_key

ROOT = Path(__file__).resolve().parents[2]
DATA = Path(os.environ.get("KEMBLE_DATA", ROOT / ".data" / "kitchen"))
WEB_BUILD = ROOT / "web" / "dist"


def _secret_key() -> str:
    """Made on first start and kept with the data, readable by its owner alone; whole on the disk before it is used, for a
    power cut that left an empty one would sign everybody out."""
    DATA.mkdir(parents=True, exist_ok=True, mode=0o700)
    path = DATA / "secret-key"
    if not path.exists() or not path.read_text():
        with tempfile.NamedTemporaryFile("w", dir=DATA, prefix=".secret-", delete=False) as file:
            file.write(get_random_secret_key())
            file.flush()
            os.fsync(file.fileno())
        try:
            os.link(file.name, path)  # whoever is first
        except FileExistsError:
            if not path.read_text():
                os.replace(file.name, path)
        except OSError:  # a disk that knows no links
            os.replace(file.name, path)
        Path(file.name).unlink(missing_ok=True)
    return path.read_text()


SECRET_KEY = _secret_key()
PASSPHRASE = os.environ.get("KEMBLE_PASSPHRASE", "")
DEBUG = os.environ.get("KEMBLE_DEBUG") == "1"
LOOPBACK_HOSTS = ["127.0.0.1", "localhost", "[::1]"]
ALLOWED_HOSTS = LOOPBACK_HOSTS + [h for h in os.environ.get("KEMBLE_HOSTS", "").split(",") if h]

INSTALLED_APPS = [
    "django.contrib.auth",
    "django.contrib.contenttypes",
    "django.contrib.sessions",
    "csp",
    "ninja",
    "kemble.server",
]
MIDDLEWARE = [
    "django.middleware.security.SecurityMiddleware",
    "csp.middleware.CSPMiddleware",  # before WhiteNoise, or the page has no policy
    "whitenoise.middleware.WhiteNoiseMiddleware",
    "kemble.server.web.middleware.ServerTime",
    "kemble.server.web.middleware.LanguageMiddleware",
    "kemble.server.web.middleware.ReadableRefusals",
    "kemble.server.web.middleware.BodyLimit",
    "django.contrib.sessions.middleware.SessionMiddleware",
    "kemble.server.web.middleware.SlidingSession",
    "django.middleware.common.CommonMiddleware",
    "django.middleware.csrf.CsrfViewMiddleware",
    "django.contrib.auth.middleware.AuthenticationMiddleware",
    "django.middleware.clickjacking.XFrameOptionsMiddleware",
]
ROOT_URLCONF = "kemble.site.urls"
ASGI_APPLICATION = "kemble.site.asgi.application"
TEMPLATES: list[dict[str, object]] = []
DATABASE = DATA / "kemble.sqlite3"
DATABASES = {
    "default": {
        "ENGINE": "django.db.backends.sqlite3",
        "NAME": DATABASE,
        "CONN_MAX_AGE": None,  # as long as the thread that has it is kept (seats.py)
        "OPTIONS": {
            "transaction_mode": "IMMEDIATE",
            # FULL: what has been answered lies on the disk, whatever the power does next.
            "init_command": "PRAGMA journal_mode=WAL; PRAGMA synchronous=FULL; PRAGMA foreign_keys=ON;",
            "timeout": 30,  # for another process (a backup, make key); our own threads queue in fair_lock.py
        },
    }
}
DEFAULT_AUTO_FIELD = "django.db.models.BigAutoField"
USE_TZ = True
TIME_ZONE = "UTC"
LANGUAGE_CODE = "en-gb"
PASSWORD_HASHERS = ["kemble.server.accounts.password_hashing.PasswordHasher"]
AUTH_PASSWORD_VALIDATORS = [
    {"NAME": "django.contrib.auth.password_validation.MinimumLengthValidator", "OPTIONS": {"min_length": 10}},
    {"NAME": "django.contrib.auth.password_validation.CommonPasswordValidator"},
]

SCALE = os.environ.get("KEMBLE_SCALE", "")
PROBE = os.environ.get("KEMBLE_PROBE", "")

# Files of the built front end. Vite puts a hash in each name under /assets/, so those never change.
STATIC_URL = "/static/"
WHITENOISE_ROOT = WEB_BUILD if WEB_BUILD.is_dir() else None
WHITENOISE_MAX_AGE = 0
_HASHED = re.compile(r"^/assets/.+-[\w-]{8}\.\w+$")


def WHITENOISE_IMMUTABLE_FILE_TEST(path: str, url: str) -> bool:
    return bool(_HASHED.match(url))


TLS_OWN = os.environ.get("KEMBLE_TLS") == "own"
TLS = TLS_OWN or os.environ.get("KEMBLE_TLS") == "1"
SESSION_COOKIE_SECURE = CSRF_COOKIE_SECURE = TLS
SESSION_COOKIE_SAMESITE = CSRF_COOKIE_SAMESITE = "Lax"
SESSION_COOKIE_AGE = 60 * 60 * 24 * 30  # from the last day on which it was used (middleware.SlidingSession)
CSRF_FAILURE_VIEW = "kemble.site.page.forged"
TRUSTED_PROXIES = [address for address in os.environ.get("KEMBLE_PROXY", "").split(",") if address]
ASK_ALWAYS = os.environ.get("KEMBLE_ASK") == "1"
SECURE_HSTS_SECONDS = 60 * 60 * 24 * 30 if TLS else 0
# What Django would say of a site on the internet, and why not here: a house's name has no subdomains of ours to speak for
# (W005), no list of browsers' is to know it (W021), and there is no plain address to send on from (W008): over TLS either
# nothing else is spoken at that port, or the proxy in front sends on.
SILENCED_SYSTEM_CHECKS = ["security.W005", "security.W008", "security.W021"]
CSRF_TRUSTED_ORIGINS = [f"https://{host}" for host in ALLOWED_HOSTS if host not in LOOPBACK_HOSTS]
SECURE_REFERRER_POLICY = "same-origin"
X_FRAME_OPTIONS = "DENY"
MOST_BODY_BYTES = 256_000
DATA_UPLOAD_MAX_MEMORY_SIZE = MOST_BODY_BYTES

CONTENT_SECURITY_POLICY = {
    "DIRECTIVES": {
        "default-src": [SELF],
        "script-src": [SELF],
        "style-src": [SELF, NONCE],
        "img-src": [SELF, "data:"],
        "font-src": [SELF],
        "connect-src": [SELF],
        "object-src": [NONE],
        "base-uri": [NONE],
        "form-action": [SELF],
        "frame-ancestors": [NONE],
    }
}

# Faults go to the terminal and to a file beside the data, each under the number that the person was shown.
LOGGING = {
    "version": 1,
    "disable_existing_loggers": False,
    "formatters": {"line": {"format": "{asctime} {levelname} {name}: {message}", "style": "{"}},
    "handlers": {
        "terminal": {"class": "logging.StreamHandler", "formatter": "line"},
        "file": {
            "class": "logging.handlers.RotatingFileHandler",
            "filename": DATA / "kemble.log",
            "maxBytes": 1_000_000,
            "backupCount": 3,
            "delay": True,
            "formatter": "line",
        },
    },
    "loggers": {
        "kemble": {"handlers": ["terminal", "file"], "level": "INFO"},
        "django": {"handlers": ["terminal"], "level": "ERROR"},
    },
}
