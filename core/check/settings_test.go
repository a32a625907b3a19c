package check_test

import "testing"

// djangoSite is a small Django site with the given lines in its settings.
func djangoSite(settings string) string {
	return `
-- manage.py --
import os
import sys

if __name__ == "__main__":
    os.environ.setdefault("DJANGO_SETTINGS_MODULE", "hill.settings")
    from django.core.management import execute_from_command_line
    execute_from_command_line(sys.argv)
-- hill/__init__.py --
-- hill/urls.py --
urlpatterns = []
-- hill/wsgi.py --
import os
from django.core.wsgi import get_wsgi_application
os.environ.setdefault("DJANGO_SETTINGS_MODULE", "hill.settings")
application = get_wsgi_application()
-- hill/settings.py --
import os
SECRET_KEY = os.environ["SECRET_KEY"]
ROOT_URLCONF = "hill.urls"
` + settings + "\n"
}

const djangoManifest = `
-- requirements.txt --
django==5.2.8
gunicorn==23.0.0
-- .python-version --
3.13
-- Procfile --
web: gunicorn hill.wsgi
`

func TestSettingsDebug(t *testing.T) {
	t.Parallel()
	runCases(t, []ruleCase{
		{"on in Django", djangoManifest + djangoSite(`DEBUG = True
ALLOWED_HOSTS = ["hill.example"]`), []string{"settings/debug hill/settings.py:4 pushed=risk"}},
		{"twin: on only where the environment says so", djangoManifest + djangoSite(`DEBUG = os.environ.get("DEBUG") == "1"
ALLOWED_HOSTS = ["hill.example"]`), nil},
		{"on unless the environment says no", djangoManifest + djangoSite(`DEBUG = os.environ.get("DEBUG", "True") == "True"
ALLOWED_HOSTS = ["hill.example"]`), []string{"settings/debug hill/settings.py:4 pushed=risk"}},
		{"a text counts as on", djangoManifest + djangoSite(`DEBUG = os.environ.get("DEBUG", "False")
ALLOWED_HOSTS = ["hill.example"]`), []string{"settings/debug hill/settings.py:4 pushed=risk"}},
		{"twin: a settings library turns the text into a boolean", `
-- requirements.txt --
django==5.2.8
gunicorn==23.0.0
python-decouple==3.8
-- .python-version --
3.13
-- Procfile --
web: gunicorn hill.wsgi
` + djangoSite(`from decouple import config
DEBUG = config("DEBUG", default="False", cast=bool)
ALLOWED_HOSTS = ["hill.example"]`), nil},
		{"inherited from the base of a settings package", djangoManifest + `
-- manage.py --
import os
os.environ.setdefault("DJANGO_SETTINGS_MODULE", "hill.settings.development")
-- hill/__init__.py --
-- hill/wsgi.py --
import os
from django.core.wsgi import get_wsgi_application
os.environ.setdefault("DJANGO_SETTINGS_MODULE", "hill.settings.production")
application = get_wsgi_application()
-- hill/settings/__init__.py --
-- hill/settings/base.py --
import os
DEBUG = True
SECRET_KEY = os.environ["SECRET_KEY"]
ALLOWED_HOSTS = []
-- hill/settings/development.py --
from .base import *
ALLOWED_HOSTS = ["*"]
-- hill/settings/production.py --
from .base import *
ALLOWED_HOSTS = ["hill.example"]
`, []string{"settings/debug hill/settings/base.py:2 pushed=risk"}},
		{"twin: production turns it off again", djangoManifest + `
-- manage.py --
import os
os.environ.setdefault("DJANGO_SETTINGS_MODULE", "hill.settings.development")
-- hill/__init__.py --
-- hill/wsgi.py --
import os
from django.core.wsgi import get_wsgi_application
os.environ.setdefault("DJANGO_SETTINGS_MODULE", "hill.settings.production")
application = get_wsgi_application()
-- hill/settings/__init__.py --
-- hill/settings/base.py --
import os
DEBUG = True
SECRET_KEY = "for-work-at-home-only"
ALLOWED_HOSTS = ["*"]
-- hill/settings/development.py --
from .base import *
DEBUG = True
-- hill/settings/production.py --
import os
from .base import *
DEBUG = False
SECRET_KEY = os.environ["SECRET_KEY"]
ALLOWED_HOSTS = ["hill.example"]
`, nil},
		{"Flask's configuration", flaskManifest + `
-- Procfile --
web: gunicorn app:app
-- app.py --
from flask import Flask
app = Flask(__name__)
app.config["DEBUG"] = True
`, []string{"settings/debug app.py:3 pushed=risk"}},
		{"a class that the configuration is taken from", flaskManifest + `
-- Procfile --
web: gunicorn app:app
-- app.py --
from flask import Flask
app = Flask(__name__)
app.config.from_object("config.Production")
-- config.py --
class Base:
    DEBUG = True
class Production(Base):
    TESTING = False
`, []string{"settings/debug config.py:2 pushed=risk"}},
		{"twin: the class of production turns it off", flaskManifest + `
-- Procfile --
web: gunicorn app:app
-- app.py --
from flask import Flask
app = Flask(__name__)
app.config.from_object("config.Production")
-- config.py --
class Base:
    DEBUG = True
class Production(Base):
    DEBUG = False
`, nil},
		{"FastAPI's own", flaskManifest + `
-- Procfile --
web: uvicorn app:app --host 0.0.0.0 --port $PORT
-- app.py --
from fastapi import FastAPI
app = FastAPI(debug=True)
`, []string{"settings/debug app.py:2 pushed=risk"}},
	})
}

func TestSettingsHosts(t *testing.T) {
	t.Parallel()
	runCases(t, []ruleCase{
		{"every name", djangoManifest + djangoSite(`DEBUG = False
ALLOWED_HOSTS = ["*"]`), []string{"settings/hosts-open hill/settings.py:5 pushed=risk"}},
		{"twin: one name and its subdomains", djangoManifest + djangoSite(`DEBUG = False
ALLOWED_HOSTS = [".hill.example"]`), nil},
		{"every name where the variable is not set", djangoManifest + djangoSite(`DEBUG = False
ALLOWED_HOSTS = os.environ.get("HOSTS", "*").split(",")`), []string{"settings/hosts-open hill/settings.py:5 pushed=risk"}},
		{"twin: from the environment", djangoManifest + djangoSite(`DEBUG = False
ALLOWED_HOSTS = os.environ["HOSTS"].split(",")`), nil},
		{"no name", djangoManifest + djangoSite(`DEBUG = False
ALLOWED_HOSTS = []`), []string{"settings/hosts-empty hill/settings.py:5 pushed=blocker"}},
		{"only this machine", djangoManifest + djangoSite(`DEBUG = False
ALLOWED_HOSTS = ["localhost", "127.0.0.1"]`), []string{"settings/hosts-empty hill/settings.py:5 pushed=blocker"}},
		{"twin: this machine and one more from a variable", djangoManifest + djangoSite(`DEBUG = False
ALLOWED_HOSTS = ["localhost"]
if os.environ.get("PUBLIC_NAME"):
    ALLOWED_HOSTS += [os.environ["PUBLIC_NAME"]]`), nil},
		{"twin: appended to", djangoManifest + djangoSite(`DEBUG = False
ALLOWED_HOSTS = ["localhost"]
ALLOWED_HOSTS.append("hill.example")`), nil},
		{"the middleware of FastAPI", flaskManifest + `
-- Procfile --
web: uvicorn app:app --host 0.0.0.0 --port $PORT
-- app.py --
from fastapi import FastAPI
from starlette.middleware.trustedhost import TrustedHostMiddleware
app = FastAPI()
app.add_middleware(TrustedHostMiddleware, allowed_hosts=["*"])
`, []string{"settings/hosts-open app.py:4 pushed=risk"}},
	})
}
