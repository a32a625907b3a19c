package check_test

import "testing"

// What the dotenv libraries of PHP leave in $_ENV, $_SERVER and the environment
// (phpdotenv 5 and Symfony 7, their documentation): the order in which files count,
// and that what is set already stays.
func TestPHPDotenv(t *testing.T) {
	t.Parallel()
	files := "-- Procfile --\nweb: php s.php\n-- composer.json --\n{\"require\":{\"php\":\"~8.2.0\"}}\n-- .env --\nPORT=8111\n"
	serve := "\n$s = stream_socket_server(\"tcp://0.0.0.0:$port\");\nwhile ($c = stream_socket_accept($s, -1)) fclose($c);\n"
	for _, c := range []struct{ name, more, code, env, want string }{
		{"phpdotenv fills $_ENV", "", "Dotenv\\Dotenv::createImmutable(__DIR__)->load();\n$port = $_ENV['PORT'] ?? 9999;", "", "any 8111"},
		{"what is set stays, and is not in $_ENV", "", "Dotenv\\Dotenv::createImmutable(__DIR__)->safeLoad();\n$port = $_ENV['PORT'] ?? 9999;", "PORT=7000", "any 9999"},
		{"it is in $_SERVER", "", "Dotenv\\Dotenv::createImmutable(__DIR__)->safeLoad();\n$port = $_SERVER['PORT'] ?? 9999;", "PORT=7000", "any 7000"},
		{"the mutable one overwrites", "", "Dotenv\\Dotenv::createMutable(__DIR__)->load();\n$port = $_ENV['PORT'] ?? 9999;", "PORT=7000", "any 8111"},
		{"a file that is not there", "", "Dotenv\\Dotenv::createImmutable(__DIR__ . '/conf')->load();\n$port = 9999;", "", "exits"},
		{"Symfony: the local file counts more", "-- .env.local --\nPORT=8222\n", "(new Symfony\\Component\\Dotenv\\Dotenv())->usePutenv()->bootEnv(__DIR__ . '/.env');\n$port = getenv('PORT') ?: 9999;", "", "any 8222"},
		{"Symfony: the stage decides", "-- .env.prod --\nPORT=8333\n", "(new Symfony\\Component\\Dotenv\\Dotenv())->bootEnv(__DIR__ . '/.env');\n$port = $_ENV['PORT'];", "APP_ENV=prod", "any 8333"},
		{"Symfony: what is set stays", "", "(new Symfony\\Component\\Dotenv\\Dotenv())->usePutenv()->load(__DIR__ . '/.env');\n$port = getenv('PORT');", "PORT=7000", "any 7000"},
	} {
		dir := plant(t, files+c.more+"-- s.php --\n<?php\n"+c.code+serve)
		if got := allOutcomes(run(t, dir, quotedEnv(c.env)).Components[0].Starts); got != c.want {
			t.Errorf("%s: %s, not %s", c.name, got, c.want)
		}
	}
}
