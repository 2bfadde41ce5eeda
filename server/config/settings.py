"""Settings. What differs between kitchens comes from the environment:

DATABASE_URL            the PostgreSQL to use (required)
SPISSUS_SECRET_KEY      signs sessions; required unless SPISSUS_DEBUG is 1
SPISSUS_ALLOWED_HOSTS   names the site answers to, comma-separated; loopback by default
SPISSUS_DEBUG           1 for development: the front end comes from Vite's own server
SPISSUS_HTTPS           1 where a proxy in front speaks HTTPS: cookies then travel by it only
SPISSUS_DATABASE_POOL   connections a process keeps at most; 10 by default
SPISSUS_SIGN_INS, SPISSUS_SIGN_UPS, SPISSUS_VISITS, SPISSUS_DEVICE_POSTS, SPISSUS_WRONG_PASSWORDS
                        how often, such as 120/min: from one address, of a device, and for one name from one address
SPISSUS_VISITORS        kitchens that nobody has claimed, at most; 5000 by default
SPISSUS_STREAMS         streams of news that a person may have open at a process
SPISSUS_HEAD_SECONDS, SPISSUS_BODY_SECONDS
                        how long the head of a request, and its body, may take
SPISSUS_DEMO            1 offers the demo kitchen on the sign-in page
SPISSUS_BUILD           the built page to serve; the newest by default
"""

import os
from datetime import timedelta
from pathlib import Path
from wsgiref.headers import Headers

import dj_database_url
from csp.constants import NONCE, NONE, SELF
from django.core.exceptions import ImproperlyConfigured

SERVER_DIR = Path(__file__).resolve().parent.parent
#: The page as it was built. It stays the same for as long as this process runs, whatever is built meanwhile.
BUILT = Path(os.environ.get("SPISSUS_BUILD", SERVER_DIR.parent / "web" / "dist")).resolve()

DEBUG = os.environ.get("SPISSUS_DEBUG") == "1"
DEMO = os.environ.get("SPISSUS_DEMO") == "1"
SECRET_KEY = os.environ.get("SPISSUS_SECRET_KEY") or ("for development only" if DEBUG else "")
if not SECRET_KEY:
    raise ImproperlyConfigured("Set SPISSUS_SECRET_KEY.")
ALLOWED_HOSTS = os.environ.get("SPISSUS_ALLOWED_HOSTS", "127.0.0.1,localhost").split(",")
CSRF_TRUSTED_ORIGINS = [f"https://{host}" for host in ALLOWED_HOSTS]

INSTALLED_APPS = [
    "django.contrib.auth",
    "django.contrib.contenttypes",
    "django.contrib.sessions",
    "django.contrib.staticfiles",
    "servestatic",
    "axes",
    "django_vite",
    "ninja",
    "people",
    "kitchens",
    "larder",
    "live",
    "devices",
    "batches",
    "house_dishes",
    "archive",
    "demo",
]

MIDDLEWARE = [
    "config.middleware.answered",
    "config.middleware.compressed",
    "django.middleware.security.SecurityMiddleware",
    "servestatic.middleware.ServeStaticMiddleware",
    *([] if DEBUG else ["csp.middleware.CSPMiddleware"]),
    "config.middleware.in_turn",
    "django.contrib.sessions.middleware.SessionMiddleware",
    "django.middleware.common.CommonMiddleware",
    "django.middleware.csrf.CsrfViewMiddleware",
    "people.sessions.WhoMiddleware",
    "django.middleware.clickjacking.XFrameOptionsMiddleware",
    "config.middleware.one_thread",
]

ROOT_URLCONF = "config.urls"
CSRF_FAILURE_VIEW = "config.urls.too_old"
ASGI_APPLICATION = "config.asgi.application"
TEMPLATES = [
    {
        "BACKEND": "django.template.backends.django.DjangoTemplates",
        "DIRS": [SERVER_DIR / "config" / "templates"],
        "OPTIONS": {"context_processors": ["django.template.context_processors.request"]},
    }
]

#: Connections to the database that a process keeps at most. So many requests are worked at at once but for two, which
#: are for what listens and tidies; past a handful they only take the processor from one another.
POOL = int(os.environ.get("SPISSUS_DATABASE_POOL", "10"))
REQUESTS_AT_ONCE = max(min(POOL - 2, 6), 1)

#: How long a request waits for the database before it says so, s: for a connection, and for a free one.
DATABASE_PATIENCE_S = 2
DATABASES = {
    "default": {
        **dj_database_url.parse(os.environ["DATABASE_URL"]),
        # A connection is tried before it is used: after a restart of the database nobody notices.
        "CONN_HEALTH_CHECKS": True,
        "OPTIONS": {
            "connect_timeout": DATABASE_PATIENCE_S,
            "pool": {
                "min_size": 2,
                "max_size": POOL,
                "timeout": DATABASE_PATIENCE_S - 0.2,
            },
        },
    }
}
CACHES = {"default": {"BACKEND": "django.core.cache.backends.db.DatabaseCache", "LOCATION": "spissus_counts"}}
DEFAULT_AUTO_FIELD = "django.db.models.BigAutoField"

AUTH_USER_MODEL = "kitchens.User"
AUTHENTICATION_BACKENDS = [
    "axes.backends.AxesStandaloneBackend",
    "django.contrib.auth.backends.ModelBackend",
    "people.recovery.ByCode",
]
# The second is for people who last signed in before the first was there; their hash is renewed then.
PASSWORD_HASHERS = ["people.hashing.Argon2", "django.contrib.auth.hashers.PBKDF2PasswordHasher"]
AUTH_PASSWORD_VALIDATORS = [
    {"NAME": "django.contrib.auth.password_validation.UserAttributeSimilarityValidator"},
    {
        "NAME": "django.contrib.auth.password_validation.MinimumLengthValidator",
        "OPTIONS": {"min_length": 12},
    },
    {"NAME": "django.contrib.auth.password_validation.CommonPasswordValidator"},
    {"NAME": "people.passwords.NotTheObvious"},
]

#: How often, from one address; and for devices, by token. A class of sixty signs up in a lesson behind one router:
#: what counts of signing up are the accounts it made.
LIMITS = {
    "sign_in": os.environ.get("SPISSUS_SIGN_INS", "120/min"),
    "sign_up": os.environ.get("SPISSUS_SIGN_UPS", "100/hour"),
    "demo": "120/min",
    "join": "30/min",
    "visit": os.environ.get("SPISSUS_VISITS", "200/hour"),
    "device": os.environ.get("SPISSUS_DEVICE_POSTS", "180/min"),
}
#: More kitchens that nobody has claimed are not opened: each lasts as long as its session.
MOST_VISITORS = int(os.environ.get("SPISSUS_VISITORS", "5000"))
#: More pages than anyone has open at a process.
MOST_STREAMS = int(os.environ.get("SPISSUS_STREAMS", "20"))
#: uvicorn has put the address that a trusted proxy names into REMOTE_ADDR; the header itself anyone can write.
NINJA_NUM_PROXIES = 0
#: So many wrong passwords within a time, and even the right one waits: by name and address, name, address.
WRONG_PASSWORDS = {
    "pair": (int(os.environ.get("SPISSUS_WRONG_PASSWORDS", "10")), timedelta(minutes=1)),
    "name": (50, timedelta(hours=1)),
    "address": (300, timedelta(hours=1)),
}
AXES_HANDLER = "people.guessing.Guesses"
AXES_VERBOSE = False
SESSION_ENGINE = "people.sessions"
SESSION_COOKIE_SAMESITE = "Lax"
SESSION_COOKIE_SECURE = CSRF_COOKIE_SECURE = os.environ.get("SPISSUS_HTTPS") == "1"
SESSION_COOKIE_AGE = 60 * 60 * 24 * 60

#: A body has arrived after this long, and so has a request's head; whoever dawdles is let go, s.
BODY_S = float(os.environ.get("SPISSUS_BODY_SECONDS", "20"))
HEAD_S = float(os.environ.get("SPISSUS_HEAD_SECONDS", "10"))
#: No head of ours comes near this, bytes.
HEAD_MOST = 64 * 1024
#: Passwords hashed at once in a process, and how long anybody waits for their turn, s.
HASHED_AT_ONCE, HASH_PATIENCE_S = 2, 20.0
#: One event is a few hundred bytes; a body beyond this is refused before it is read.
DATA_UPLOAD_MAX_MEMORY_SIZE = 256 * 1024
#: A kitchen that returns is larger, and so is a page that somebody saved.
LARGE_BODIES = ("/api/v1/files", "/api/v1/files/look", "/api/v1/previews/recipe")
LARGE_BODY = 32 * 1024 * 1024

USE_TZ = True
TIME_ZONE = "UTC"
LANGUAGE_CODE = "en"
USE_I18N = False

#: The built front end is the only thing there is to serve beside the page and the API.
STATIC_URL = "/static/"
STATIC_ROOT = BUILT / "site"
SERVESTATIC_MIMETYPES = {".webmanifest": "application/manifest+json"}
SERVESTATIC_ALLOW_ALL_ORIGINS = False


def SERVESTATIC_ADD_HEADERS_FUNCTION(headers: Headers, path: str, url: str) -> None:  # noqa: N802
    """What a file may do, how long it may be kept, and what the service worker may look after."""
    # A picture does nothing; the worker fetches what is ours.
    headers["Content-Security-Policy"] = "default-src 'self'; frame-ancestors 'none'; base-uri 'none'"
    headers["X-Content-Type-Options"] = "nosniff"
    # Vite puts a hash of the content into the name of every asset.
    if url.startswith("/static/assets/"):
        headers["Cache-Control"] = "max-age=31536000, public, immutable"
    # The whole site, not only the folder that it lies in.
    if url == "/static/sw.js":
        headers["Service-Worker-Allowed"] = "/"


DJANGO_VITE = {
    "default": {
        "dev_mode": DEBUG,
        "dev_server_host": "127.0.0.1",
        "manifest_path": BUILT / "manifest.json",
    }
}
#: `./spissus` builds the page before it serves; commands that need no page run without one.
SILENCED_SYSTEM_CHECKS = ["django_vite.W001", "axes.W002"]
SECURE_CONTENT_TYPE_NOSNIFF = True
X_FRAME_OPTIONS = "DENY"
if SESSION_COOKIE_SECURE:
    SECURE_HSTS_SECONDS = 60 * 60 * 24 * 365
#: Everything comes from here. The nonce is for the one style that a library writes while a sheet is open.
CONTENT_SECURITY_POLICY = {
    "DIRECTIVES": {
        "default-src": [NONE],
        "script-src": [SELF],
        "style-src": [SELF, NONCE],
        "img-src": [SELF, "data:"],
        "font-src": [SELF],
        "connect-src": [SELF],
        "manifest-src": [SELF],
        "worker-src": [SELF],
        "form-action": [SELF],
        "frame-ancestors": [NONE],
        "base-uri": [NONE],
    }
}
SECURE_REFERRER_POLICY = "same-origin"

LOGGING = {
    "version": 1,
    "disable_existing_loggers": False,
    "handlers": {"console": {"class": "logging.StreamHandler"}},
    "root": {"handlers": ["console"], "level": "WARNING"},
    # What a client did wrong it is told; the log is for what we did.
    "loggers": {"django.request": {"level": "ERROR"}},
}
