package survey_test

import (
	"testing"

	"ubique/core/survey"
)

func TestSecretName(t *testing.T) {
	for name, want := range map[string]bool{
		"SECRET_KEY": true, "secretKey": true, "JWT_SECRET": true, "jwtSecret": true, "DB_PASSWORD": true, "dbPassword": true, "password": true, "PASSWD": true, "apiKey": true, "API_KEY": true,
		"accessToken": true, "client_secret": true, "masterKey": true, "passphrase": true, "SESSION_SECRET": true, "signing-key": true,
		"PASSWORD_FIELD": false, "secretHeader": false, "publicKey": false, "key": false, "token": false, "passwordHash": false, "SECRET_PATH": false, "keyboard": false, "monkey": false, "PORT": false, "": false, "forgotPassword": true, "tokenUrl": false,
	} {
		if got := survey.SecretName(name); got != want {
			t.Errorf("%s names a secret: %v", name, got)
		}
	}
}

func TestElsewhere(t *testing.T) {
	for path, want := range map[string]bool{
		"src": false, "apps/bookings": false, "test": true, "apps/web/__tests__/x": true, "examples/hello": true, "docs": true, "dist": true, ".github/workflows": true, "node_modules/x": true, "services/testing": false, "": false, "venv/lib": true, "public": true, "env": false,
	} {
		if got := survey.Elsewhere(path); got != want {
			t.Errorf("%q is elsewhere: %v", path, got)
		}
	}
}

func TestIsTest(t *testing.T) {
	for name, want := range map[string]bool{"a/app.test.ts": true, "app.spec.js": true, "test_app.py": true, "app_test.py": true, "conftest.py": true, "tests.py": true, "testing.py": false, "latest.js": false, "contest.py": false} {
		if got := survey.IsTest(name); got != want {
			t.Errorf("%s is a test: %v", name, got)
		}
	}
}
