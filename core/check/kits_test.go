package check_test

import "testing"

// kits are the servers that the builds of frameworks make and those that serve folders: what
// each did in the environments beside it, read from the kernel in 2026-11.
var kits = []struct{ name, tree, want string }{
	{"Next.js: npx next start", `-- Procfile --
web: npx next start
-- package.json --
{"dependencies":{"next":"15.5.0"},"scripts":{"build":"next build","start":"next start"}}
-- pages/index.js --
export default function Page() { return "dome"; }
`, ` => any 3000
PORT=5123 => any 5123
PORT= => exits
PORT=abc => exits
HOSTNAME=127.0.0.1 => any 3000
HOST=127.0.0.1 => any 3000
PORT=0 => any 0`},
	{"Next.js: npx next start -p 5210", `-- Procfile --
web: npx next start -p 5210
-- package.json --
{"dependencies":{"next":"15.5.0"},"scripts":{"build":"next build","start":"next start"}}
-- pages/index.js --
export default function Page() { return "dome"; }
`, ` => any 5210
PORT=5123 => any 5210`},
	{"Next.js: npx next start -p ${PORT:-3300} -H 127.0.0.1", `-- Procfile --
web: npx next start -p ${PORT:-3300} -H 127.0.0.1
-- package.json --
{"dependencies":{"next":"15.5.0"},"scripts":{"build":"next build","start":"next start"}}
-- pages/index.js --
export default function Page() { return "dome"; }
`, ` => loopback 3300
PORT=5123 => loopback 5123`},
	{"Next.js: npm start", `-- Procfile --
web: npm start
-- package.json --
{"dependencies":{"next":"15.5.0"},"scripts":{"build":"next build","start":"next start"}}
-- pages/index.js --
export default function Page() { return "dome"; }
`, ` => any 3000
PORT=5123 => any 5123`},
	{"Next.js: npm start -- -p 5211", `-- Procfile --
web: npm start -- -p 5211
-- package.json --
{"dependencies":{"next":"15.5.0"},"scripts":{"build":"next build","start":"next start"}}
-- pages/index.js --
export default function Page() { return "dome"; }
`, ` => any 5211`},
	{"Next.js: npx next start --port=5212 --hostname=0.0.0.0", `-- Procfile --
web: npx next start --port=5212 --hostname=0.0.0.0
-- package.json --
{"dependencies":{"next":"15.5.0"},"scripts":{"build":"next build","start":"next start"}}
-- pages/index.js --
export default function Page() { return "dome"; }
`, ` => any 5212`},
	{"Nitro: node .output/server/index.mjs", `-- Procfile --
web: node .output/server/index.mjs
-- package.json --
{"dependencies":{"nitropack":"2.12.0"},"scripts":{"build":"nitropack build"}}
-- nitro.config.ts --
export default defineNitroConfig({});
-- routes/index.ts --
export default eventHandler(() => "dome");
`, ` => any 3000
PORT=5123 => any 5123
NITRO_PORT=5124 PORT=5123 => any 5124
HOST=127.0.0.1 => loopback 3000
NITRO_HOST=127.0.0.1 => loopback 3000
PORT=abc => exits
PORT= => any 3000
NITRO_UNIX_SOCKET=n.sock => unix:n.sock`},
	{"SvelteKit: node build", `-- Procfile --
web: node build
-- package.json --
{"type":"module","dependencies":{"@sveltejs/kit":"2.0.0","@sveltejs/adapter-node":"5.0.0","vite":"6.0.0"},"scripts":{"build":"vite build","preview":"vite preview"}}
-- svelte.config.js --
import adapter from '@sveltejs/adapter-node';
export default { kit: { adapter: adapter() } };
`, ` => any 3000
PORT=5123 => any 5123
HOST=127.0.0.1 PORT=5123 => loopback 5123
SOCKET_PATH=s.sock => unix:s.sock
PORT= => exits
PORT=abc => exits
HOST= => any 3000`},
	{"SvelteKit: node build/index.js", `-- Procfile --
web: node build/index.js
-- package.json --
{"type":"module","dependencies":{"@sveltejs/kit":"2.0.0","@sveltejs/adapter-node":"5.0.0","vite":"6.0.0"},"scripts":{"build":"vite build","preview":"vite preview"}}
-- svelte.config.js --
import adapter from '@sveltejs/adapter-node';
export default { kit: { adapter: adapter() } };
`, `PORT=5125 => any 5125`},
	{"SvelteKit: npm run preview", `-- Procfile --
web: npm run preview
-- package.json --
{"type":"module","dependencies":{"@sveltejs/kit":"2.0.0","@sveltejs/adapter-node":"5.0.0","vite":"6.0.0"},"scripts":{"build":"vite build","preview":"vite preview"}}
-- svelte.config.js --
import adapter from '@sveltejs/adapter-node';
export default { kit: { adapter: adapter() } };
`, ` => loopback 4173
PORT=5123 => loopback 4173`},
	{"SvelteKit: npx vite preview --port 5213 --host", `-- Procfile --
web: npx vite preview --port 5213 --host
-- package.json --
{"type":"module","dependencies":{"@sveltejs/kit":"2.0.0","@sveltejs/adapter-node":"5.0.0","vite":"6.0.0"},"scripts":{"build":"vite build","preview":"vite preview"}}
-- svelte.config.js --
import adapter from '@sveltejs/adapter-node';
export default { kit: { adapter: adapter() } };
`, ` => any 5213`},
	{"Astro: node dist/server/entry.mjs", `-- Procfile --
web: node dist/server/entry.mjs
-- package.json --
{"type":"module","dependencies":{"astro":"5.0.0","@astrojs/node":"9.0.0"},"scripts":{"build":"astro build"}}
-- astro.config.mjs --
import node from '@astrojs/node';
export default { output: 'server', adapter: node({ mode: 'standalone' }) };
`, ` => loopback 4321
PORT=5123 => loopback 5123
HOST=0.0.0.0 => any 4321
HOST= => any 4321
PORT= => loopback 4321
PORT=abc => exits
HOST=127.0.0.1 PORT=5124 => loopback 5124`},
	{"Astro: npx astro preview", `-- Procfile --
web: npx astro preview
-- package.json --
{"type":"module","dependencies":{"astro":"5.0.0","@astrojs/node":"9.0.0"},"scripts":{"build":"astro build"}}
-- astro.config.mjs --
import node from '@astrojs/node';
export default { output: 'server', adapter: node({ mode: 'standalone' }) };
`, ` => loopback 4321
PORT=5123 => loopback 4321`},
	{"Astro: npx astro preview --port 5214 --host 0.0.0.0", `-- Procfile --
web: npx astro preview --port 5214 --host 0.0.0.0
-- package.json --
{"type":"module","dependencies":{"astro":"5.0.0","@astrojs/node":"9.0.0"},"scripts":{"build":"astro build"}}
-- astro.config.mjs --
import node from '@astrojs/node';
export default { output: 'server', adapter: node({ mode: 'standalone' }) };
`, ` => any 5214`},
	{"React Router: npm start", `-- Procfile --
web: npm start
-- package.json --
{"type":"module","dependencies":{"@react-router/serve":"7.9.0"},"devDependencies":{"@react-router/dev":"7.9.0"},"scripts":{"build":"react-router build","start":"react-router-serve ./build/server/index.js"}}
`, ` => any 3000
PORT=5123 => any 5123
HOST=127.0.0.1 => loopback 3000
PORT= => any 0
PORT=abc => any 3000`},
	{"React Router: npx react-router-serve build/server/index.js", `-- Procfile --
web: npx react-router-serve build/server/index.js
-- package.json --
{"type":"module","dependencies":{"@react-router/serve":"7.9.0"},"devDependencies":{"@react-router/dev":"7.9.0"},"scripts":{"build":"react-router build","start":"react-router-serve ./build/server/index.js"}}
`, `PORT=5126 => any 5126`},
	{"Vite: npm run preview", `-- Procfile --
web: npm run preview
-- package.json --
{"type":"module","dependencies":{"vite":"6.0.0"},"scripts":{"build":"vite build","preview":"vite preview"}}
-- index.html --
<p>dome</p>
`, ` => loopback 4173
PORT=5123 => loopback 4173`},
	{"Vite: npx vite preview --host 0.0.0.0 --port $PORT", `-- Procfile --
web: npx vite preview --host 0.0.0.0 --port $PORT
-- package.json --
{"type":"module","dependencies":{"vite":"6.0.0"},"scripts":{"build":"vite build","preview":"vite preview"}}
-- index.html --
<p>dome</p>
`, `PORT=5123 => any 5123
 => exits`},
	{"Vite: npx vite preview --strictPort --port=5215 --host=127.0.0.1", `-- Procfile --
web: npx vite preview --strictPort --port=5215 --host=127.0.0.1
-- package.json --
{"type":"module","dependencies":{"vite":"6.0.0"},"scripts":{"build":"vite build","preview":"vite preview"}}
-- index.html --
<p>dome</p>
`, ` => loopback 5215`},
	{"SvelteKit with a prefix: node build", `-- Procfile --
web: node build
-- package.json --
{"type":"module","dependencies":{"@sveltejs/kit":"2.0.0","@sveltejs/adapter-node":"5.0.0","vite":"6.0.0"},"scripts":{"build":"vite build"}}
-- svelte.config.js --
import adapter from '@sveltejs/adapter-node';
export default { kit: { adapter: adapter({ envPrefix: 'MY_' }) } };
`, ` => any 3000
MY_PORT=5123 => any 5123
PORT=5124 => any 3000
MY_HOST=127.0.0.1 => loopback 3000
MY_SOCKET_PATH=s.sock => unix:s.sock`},
	{"Vite: npx vite --host", `-- Procfile --
web: npx vite --host
-- package.json --
{"type":"module","dependencies":{"vite":"6.0.0"},"scripts":{"build":"vite build","preview":"vite preview"}}
-- index.html --
<p>dome</p>
`, ` => any 5173
PORT=5123 => any 5173`},
	{"Vite: npx vite dev --port 5216", `-- Procfile --
web: npx vite dev --port 5216
-- package.json --
{"type":"module","dependencies":{"vite":"6.0.0"},"scripts":{"build":"vite build","preview":"vite preview"}}
-- index.html --
<p>dome</p>
`, ` => loopback 5216`},
	{"a folder: npx fastify start -a 0.0.0.0 -p 5217 -l info app.js", `-- Procfile --
web: npx fastify start -a 0.0.0.0 -p 5217 -l info app.js
-- package.json --
{"dependencies":{"fastify":"5.0.0","fastify-cli":"7.0.0","serve":"14.0.0","sirv-cli":"3.0.0","http-server":"14.0.0","json-server":"0.17.4"}}
-- app.js --
module.exports = async (fastify) => { fastify.get('/', async () => 'dome'); };
-- dist/index.html --
<p>dome</p>
-- db.json --
{}
`, ` => any 5217
PORT=5123 => any 5217`},
	{"a folder: npx fastify start --address 127.0.0.1 --port ${PORT:-3000} app.js", `-- Procfile --
web: npx fastify start --address 127.0.0.1 --port ${PORT:-3000} app.js
-- package.json --
{"dependencies":{"fastify":"5.0.0","fastify-cli":"7.0.0","serve":"14.0.0","sirv-cli":"3.0.0","http-server":"14.0.0","json-server":"0.17.4"}}
-- app.js --
module.exports = async (fastify) => { fastify.get('/', async () => 'dome'); };
-- dist/index.html --
<p>dome</p>
-- db.json --
{}
`, ` => loopback 3000
PORT=5123 => loopback 5123`},
	{"a folder: npx serve dist", `-- Procfile --
web: npx serve dist
-- package.json --
{"dependencies":{"fastify":"5.0.0","fastify-cli":"7.0.0","serve":"14.0.0","sirv-cli":"3.0.0","http-server":"14.0.0","json-server":"0.17.4"}}
-- app.js --
module.exports = async (fastify) => { fastify.get('/', async () => 'dome'); };
-- dist/index.html --
<p>dome</p>
-- db.json --
{}
`, ` => any 3000
PORT=5123 => any 5123
PORT= => exits
PORT=abc => exits
HOST=127.0.0.1 => any 3000`},
	{"a folder: npx sirv dist", `-- Procfile --
web: npx sirv dist
-- package.json --
{"dependencies":{"fastify":"5.0.0","fastify-cli":"7.0.0","serve":"14.0.0","sirv-cli":"3.0.0","http-server":"14.0.0","json-server":"0.17.4"}}
-- app.js --
module.exports = async (fastify) => { fastify.get('/', async () => 'dome'); };
-- dist/index.html --
<p>dome</p>
-- db.json --
{}
`, ` => loopback 8080
PORT=5123 => loopback 5123
PORT= => loopback 8080
PORT=abc => exits
HOST=127.0.0.1 => loopback 8080`},
	{"a folder: npx http-server dist", `-- Procfile --
web: npx http-server dist
-- package.json --
{"dependencies":{"fastify":"5.0.0","fastify-cli":"7.0.0","serve":"14.0.0","sirv-cli":"3.0.0","http-server":"14.0.0","json-server":"0.17.4"}}
-- app.js --
module.exports = async (fastify) => { fastify.get('/', async () => 'dome'); };
-- dist/index.html --
<p>dome</p>
-- db.json --
{}
`, ` => any 8080
PORT=5123 => any 5123
PORT= => any 8080
PORT=abc => any 8080
HOST=127.0.0.1 => any 8080`},
	{"a folder: npx sirv-cli dist", `-- Procfile --
web: npx sirv-cli dist
-- package.json --
{"dependencies":{"fastify":"5.0.0","fastify-cli":"7.0.0","serve":"14.0.0","sirv-cli":"3.0.0","http-server":"14.0.0","json-server":"0.17.4"}}
-- app.js --
module.exports = async (fastify) => { fastify.get('/', async () => 'dome'); };
-- dist/index.html --
<p>dome</p>
-- db.json --
{}
`, ` => loopback 8080
PORT=5123 => loopback 5123
PORT= => loopback 8080
PORT=abc => exits
HOST=127.0.0.1 => loopback 8080`},
	{"a folder: npx serve -s dist -p 5218", `-- Procfile --
web: npx serve -s dist -p 5218
-- package.json --
{"dependencies":{"fastify":"5.0.0","fastify-cli":"7.0.0","serve":"14.0.0","sirv-cli":"3.0.0","http-server":"14.0.0","json-server":"0.17.4"}}
-- app.js --
module.exports = async (fastify) => { fastify.get('/', async () => 'dome'); };
-- dist/index.html --
<p>dome</p>
-- db.json --
{}
`, ` => any 5218
PORT=5123 => any 5218`},
	{"a folder: npx serve dist --listen tcp://127.0.0.1:5219", `-- Procfile --
web: npx serve dist --listen tcp://127.0.0.1:5219
-- package.json --
{"dependencies":{"fastify":"5.0.0","fastify-cli":"7.0.0","serve":"14.0.0","sirv-cli":"3.0.0","http-server":"14.0.0","json-server":"0.17.4"}}
-- app.js --
module.exports = async (fastify) => { fastify.get('/', async () => 'dome'); };
-- dist/index.html --
<p>dome</p>
-- db.json --
{}
`, ` => loopback 5219`},
	{"a folder: npx serve dist -l tcp:0.0.0.0:5220", `-- Procfile --
web: npx serve dist -l tcp:0.0.0.0:5220
-- package.json --
{"dependencies":{"fastify":"5.0.0","fastify-cli":"7.0.0","serve":"14.0.0","sirv-cli":"3.0.0","http-server":"14.0.0","json-server":"0.17.4"}}
-- app.js --
module.exports = async (fastify) => { fastify.get('/', async () => 'dome'); };
-- dist/index.html --
<p>dome</p>
-- db.json --
{}
`, ` => any 5220`},
	{"a folder: npx sirv dist --port 5221 --host 0.0.0.0 --single", `-- Procfile --
web: npx sirv dist --port 5221 --host 0.0.0.0 --single
-- package.json --
{"dependencies":{"fastify":"5.0.0","fastify-cli":"7.0.0","serve":"14.0.0","sirv-cli":"3.0.0","http-server":"14.0.0","json-server":"0.17.4"}}
-- app.js --
module.exports = async (fastify) => { fastify.get('/', async () => 'dome'); };
-- dist/index.html --
<p>dome</p>
-- db.json --
{}
`, ` => any 5221`},
	{"a folder: npx sirv dist --host", `-- Procfile --
web: npx sirv dist --host
-- package.json --
{"dependencies":{"fastify":"5.0.0","fastify-cli":"7.0.0","serve":"14.0.0","sirv-cli":"3.0.0","http-server":"14.0.0","json-server":"0.17.4"}}
-- app.js --
module.exports = async (fastify) => { fastify.get('/', async () => 'dome'); };
-- dist/index.html --
<p>dome</p>
-- db.json --
{}
`, ` => any 8080`},
	{"a folder: npx http-server ./dist -p 5222 -a 0.0.0.0", `-- Procfile --
web: npx http-server ./dist -p 5222 -a 0.0.0.0
-- package.json --
{"dependencies":{"fastify":"5.0.0","fastify-cli":"7.0.0","serve":"14.0.0","sirv-cli":"3.0.0","http-server":"14.0.0","json-server":"0.17.4"}}
-- app.js --
module.exports = async (fastify) => { fastify.get('/', async () => 'dome'); };
-- dist/index.html --
<p>dome</p>
-- db.json --
{}
`, ` => any 5222`},
	{"a folder: npx http-server -p 0", `-- Procfile --
web: npx http-server -p 0
-- package.json --
{"dependencies":{"fastify":"5.0.0","fastify-cli":"7.0.0","serve":"14.0.0","sirv-cli":"3.0.0","http-server":"14.0.0","json-server":"0.17.4"}}
-- app.js --
module.exports = async (fastify) => { fastify.get('/', async () => 'dome'); };
-- dist/index.html --
<p>dome</p>
-- db.json --
{}
`, ` => any 8080`},
	{"a folder: npx json-server --port 5223 db.json", `-- Procfile --
web: npx json-server --port 5223 db.json
-- package.json --
{"dependencies":{"fastify":"5.0.0","fastify-cli":"7.0.0","serve":"14.0.0","sirv-cli":"3.0.0","http-server":"14.0.0","json-server":"0.17.4"}}
-- app.js --
module.exports = async (fastify) => { fastify.get('/', async () => 'dome'); };
-- dist/index.html --
<p>dome</p>
-- db.json --
{}
`, ` => loopback 5223`},
	{"Remix: npm start", `-- Procfile --
web: npm start
-- package.json --
{"type":"module","dependencies":{"@remix-run/serve":"2.16.0"},"scripts":{"build":"remix vite:build","start":"remix-serve build/server/index.js"}}
`, ` => any 3000
PORT=5123 => any 5123
HOST=127.0.0.1 => loopback 3000
PORT= => any 0
PORT=abc => any 3000`},
	{"Next.js alone: node .next/standalone/server.js", `-- Procfile --
web: node .next/standalone/server.js
-- package.json --
{"dependencies":{"next":"15.5.0"},"scripts":{"build":"next build"}}
-- next.config.js --
module.exports = { output: 'standalone' };
-- pages/index.js --
export default function Page() { return "dome"; }
`, ` => any 3000
PORT=5123 => any 5123
HOSTNAME=127.0.0.1 => loopback 3000
PORT=abc => any 3000
PORT= => any 3000
PORT=0 => any 3000`},
}

// configured are settings of those frameworks in which more is said.
var configured = []struct{ name, tree, want string }{
	{"the port in the settings of Astro", `-- Procfile --
web: node dist/server/entry.mjs
-- package.json --
{"type":"module","dependencies":{"astro":"5.0.0","@astrojs/node":"9.0.0"},"scripts":{"build":"astro build"}}
-- astro.config.mjs --
import { defineConfig } from 'astro/config';
import node from '@astrojs/node';
export default defineConfig({ output: 'server', server: { port: 4400, host: true }, adapter: node({ mode: 'standalone' }) });
`, ` => any 4400
PORT=5123 => any 5123
HOST=127.0.0.1 => loopback 4400`},
	{"a site without a server", `-- Procfile --
web: npx astro preview --host
-- package.json --
{"type":"module","dependencies":{"astro":"5.0.0"},"scripts":{"build":"astro build"}}
-- astro.config.mjs --
export default { server: { port: 4401 } };
`, ` => any 4401
HOST=127.0.0.1 PORT=5123 => any 4401`},
	{"Play that sbt builds", `-- Procfile --
web: target/universal/stage/bin/dome
-- build.sbt --
name := "Dome"
scalaVersion := "3.3.6"
lazy val root = (project in file(".")).enablePlugins(PlayJava)
-- project/plugins.sbt --
addSbtPlugin("org.playframework" % "sbt-plugin" % "3.0.8")
-- conf/application.conf --
play.server.http.port = 9100
play.server.http.port = ${?PORT}
-- conf/routes --
GET / controllers.Home.index()
`, ` => any 9100
PORT=5123 => any 5123`},
	{"what Gradle runs", `-- Procfile --
web: sh ./gradlew run
-- gradlew --
#!/bin/sh
exec java -classpath gradle/wrapper/gradle-wrapper.jar org.gradle.wrapper.GradleWrapperMain "$@"
-- build.gradle.kts --
plugins { application }
application { mainClass.set("Dome") }
-- src/main/java/Dome.java --
import com.sun.net.httpserver.HttpServer;
import java.net.InetSocketAddress;

public class Dome {
    public static void main(String[] args) throws Exception {
        HttpServer.create(new InetSocketAddress(Integer.parseInt(System.getenv().getOrDefault("PORT", "6801"))), 0).start();
    }
}
`, ` => any 6801
PORT=5123 => any 5123`},
	{"rails server and its variables", `-- Procfile --
web: bin/rails server
-- Gemfile --
source 'https://rubygems.org'
gem 'railties'
gem 'puma'
-- bin/rails --
#!/usr/bin/env ruby
APP_PATH = File.expand_path('../config/application', __dir__)
require_relative '../config/boot'
require 'rails/commands'
-- config/boot.rb --
require 'bundler/setup'
-- config/application.rb --
require_relative 'boot'
require 'rails'
module Sky
  class Application < Rails::Application
  end
end
`, ` => loopback 3000
PORT=5123 => loopback 5123
PORT=abc => loopback 0
PORT= => loopback 0
BINDING=0.0.0.0 => any 3000
RAILS_ENV=production => any 3000`},
	{"what a promise gives to the function that it calls", `-- Procfile --
web: node main.mjs
-- package.json --
{"dependencies":{"@nestjs/core":"11.0.0"}}
-- main.mjs --
import { NestFactory } from '@nestjs/core';
class Dome {}
NestFactory.create(Dome).then((sky) => { sky.listen(process.env.PORT || 3000, '127.0.0.1'); });
`, ` => loopback 3000
PORT=5123 => loopback 5123`},
}

func TestKits(t *testing.T) {
	t.Parallel()
	for _, list := range [][]struct{ name, tree, want string }{kits, configured} {
		for _, c := range list {
			t.Run(c.name, func(t *testing.T) {
				t.Parallel()
				outcome(t, c.tree, c.want)
			})
		}
	}
}
