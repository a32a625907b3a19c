from .base import *  # noqa: F403

CSRF_COOKIE_SECURE = True
SESSION_COOKIE_SECURE = True
