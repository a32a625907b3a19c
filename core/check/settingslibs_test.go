package check_test

import "testing"

// settingsLibraries are programs that read their settings or their command line through
// packages; each was run, and what it did was read from the kernel.
var settingsLibraries = []told{
	{"valibot safe parse with picklist", `-- Procfile --
web: node a.mjs
-- package.json --
{"name":"a","type":"module","dependencies":{"valibot":"^0.42"}}
-- a.mjs --
import http from 'node:http';
import { object, optional, pipe, string, transform, number, integer, minValue, maxValue, picklist, safeParse, fallback } from 'valibot';
const Port = pipe(optional(string(), '6010'), transform((s) => Number(s)), number(), integer(), minValue(1), maxValue(65535));
const Env = object({ PORT: Port, STAGE: optional(picklist(['test', 'live']), 'test'), HOST: fallback(picklist(['0.0.0.0', '127.0.0.1']), '127.0.0.1') });
const r = safeParse(Env, process.env);
if (!r.success) { console.error(r.issues[0].message); process.exit(2); }
http.createServer((q, s) => s.end()).listen(r.output.PORT, r.output.STAGE === 'live' ? '0.0.0.0' : r.output.HOST);
`, ` => loopback 6010
PORT=8010 STAGE=live => any 8010
STAGE=other => exits
PORT=12.5 => exits`},
	{"valibot namespace and regex", `-- Procfile --
web: node a.mjs
-- package.json --
{"name":"a","type":"module","dependencies":{"valibot":"^0.42"}}
-- a.mjs --
import http from 'node:http';
import * as v from 'valibot';
const schema = v.looseObject({
  PORT: v.optional(v.pipe(v.string(), v.regex(/^\d+$/, 'digits'), v.transform(parseInt)), '6011'),
  HOST: v.nullish(v.pipe(v.string(), v.trim(), v.nonEmpty()), '0.0.0.0'),
});
try {
  const env = v.parse(schema, process.env);
  http.createServer((q, s) => s.end()).listen(env.PORT, env.HOST);
} catch (e) {
  console.error(e.message);
  process.exitCode = 1;
}
`, ` => any 6011
PORT=8011 => any 8011
PORT=x1 => nothing
HOST= => nothing`},
	{"yup", `-- Procfile --
web: node a.js
-- package.json --
{"name":"a","dependencies":{"yup":"^1"}}
-- a.js --
const yup = require('yup');
const schema = yup.object({ PORT: yup.number().integer().min(1).max(65535).default(6101), HOST: yup.string().default('0.0.0.0') });
const env = schema.validateSync(process.env, { stripUnknown: true });
require('http').createServer((q, r) => r.end()).listen(env.PORT, env.HOST);
`, ` => any 6101
PORT=8101 => any 8101
PORT=zz => exits`},
	{"ajv coerce", `-- Procfile --
web: node a.js
-- package.json --
{"name":"a","dependencies":{"ajv":"^8"}}
-- a.js --
const Ajv = require('ajv');
const ajv = new Ajv({ useDefaults: true, coerceTypes: true, removeAdditional: true });
const env = { ...process.env };
const ok = ajv.validate({ type: 'object', additionalProperties: false, properties: { PORT: { type: 'integer', default: 6103 }, HOST: { type: 'string', default: '0.0.0.0' } } }, env);
if (!ok) { console.error(ajv.errorsText()); process.exit(1); }
require('http').createServer((q, r) => r.end()).listen(env.PORT, env.HOST);
`, ` => any 6103
PORT=8103 => any 8103
PORT=zz => exits`},
	{"joi", `-- Procfile --
web: node a.js
-- package.json --
{"name":"a","dependencies":{"joi":"^17"}}
-- a.js --
const Joi = require('joi');
const schema = Joi.object({ PORT: Joi.number().port().default(6104), HOST: Joi.string().hostname().default('127.0.0.1') }).unknown();
const { value, error } = schema.validate(process.env, { abortEarly: false });
if (error) throw new Error(` + "`" + `config: ${error.message}` + "`" + `);
require('http').createServer((q, r) => r.end()).listen(value.PORT, value.HOST);
`, ` => loopback 6104
PORT=8104 => loopback 8104
PORT=zz => exits`},
	{"minimist", `-- Procfile --
web: node a.js --port=6105 -H 0.0.0.0 serve
-- package.json --
{"name":"a","dependencies":{"minimist":"^1"}}
-- a.js --
const argv = require('minimist')(process.argv.slice(2), { alias: { H: 'host', p: 'port' }, default: { port: process.env.PORT || 5105, host: 'localhost' } });
if (argv._[0] !== 'serve') process.exit(1);
require('http').createServer((q, r) => r.end()).listen(argv.port, argv.host);
`, ` => any 6105
PORT=8105 => any 6105`},
	{"mri", `-- Procfile --
web: node a.js --host=127.0.0.1
-- package.json --
{"name":"a","dependencies":{"mri":"^1"}}
-- a.js --
const mri = require('mri');
const { port, host } = mri(process.argv.slice(2), { string: ['host'], default: { port: +process.env.PORT || 6106, host: '0.0.0.0' } });
require('http').createServer((q, r) => r.end()).listen(port, host);
`, ` => loopback 6106
PORT=8106 => loopback 8106`},
	{"sade", `-- Procfile --
web: node a.js start --port 6107
-- package.json --
{"name":"a","dependencies":{"sade":"^1"}}
-- a.js --
const sade = require('sade');
sade('dome').version('1.0.0').command('start').option('-p, --port', 'port', 5107).option('-H, --host', 'host', process.env.HOST || '127.0.0.1')
  .action((opts) => { require('http').createServer((q, r) => r.end()).listen(opts.port, opts.host); })
  .parse(process.argv);
`, ` => loopback 6107
HOST=0.0.0.0 => any 6107`},
	{"arg", `-- Procfile --
web: node a.js --port 6108
-- package.json --
{"name":"a","dependencies":{"arg":"^5"}}
-- a.js --
const arg = require('arg');
const args = arg({ '--port': Number, '--host': String, '-p': '--port' });
require('http').createServer((q, r) => r.end()).listen(args['--port'] ?? 5108, args['--host'] ?? process.env.HOST ?? '127.0.0.1');
`, ` => loopback 6108
HOST=0.0.0.0 => any 6108`},
	{"rc", `-- Procfile --
web: node a.js
-- package.json --
{"name":"a","dependencies":{"rc":"^1"}}
-- .domerc --
{"web": {"host": "0.0.0.0"}}
-- a.js --
const conf = require('rc')('dome', { port: 6110, web: { host: 'localhost' } });
require('http').createServer((q, r) => r.end()).listen(conf.port, conf.web.host);
`, ` => any 6110
dome_port=8110 => any 8110
dome_web__host=127.0.0.1 => loopback 6110`},
	{"lodash merge", `-- Procfile --
web: node a.js
-- package.json --
{"name":"a","dependencies":{"lodash":"^4"}}
-- a.js --
const _ = require('lodash');
const all = { base: { web: { port: 6111, host: '127.0.0.1' } }, prod: { web: { host: '0.0.0.0' } } };
const conf = _.merge({}, all.base, _.get(all, process.env.APP, {}));
require('http').createServer((q, r) => r.end()).listen(_.pick(conf.web, ['port', 'host']));
`, ` => loopback 6111
APP=prod => any 6111`},
	{"deepmerge and defu", `-- Procfile --
web: node a.mjs
-- package.json --
{"name":"a","type":"module","dependencies":{"defu":"^6","deepmerge":"^4"}}
-- a.mjs --
import { defu } from 'defu';
import deepmerge from 'deepmerge';
import http from 'node:http';
const a = defu({ port: process.env.PORT }, { port: 6112, host: '0.0.0.0' });
const b = deepmerge({ o: { host: '127.0.0.1' } }, { o: { port: a.port } });
http.createServer((q, r) => r.end()).listen(b.o);
`, ` => loopback 6112
PORT=8112 => loopback 8112`},
	{"ini", `-- Procfile --
web: node a.js
-- package.json --
{"name":"a","dependencies":{"ini":"^4"}}
-- app.ini --
port = 6113
[dev]
host = 127.0.0.1
[prod]
host = 0.0.0.0
-- a.js --
const ini = require('ini'), fs = require('fs');
const c = ini.parse(fs.readFileSync('./app.ini', 'utf-8'));
require('http').createServer((q, r) => r.end()).listen(c.port, c[process.env.ENVIRONMENT || 'dev'].host);
`, ` => loopback 6113
ENVIRONMENT=prod => any 6113`},
	{"toml iarna and json5", `-- Procfile --
web: node a.js
-- package.json --
{"name":"a","dependencies":{"@iarna/toml":"^2","json5":"^2"}}
-- a.toml --
[web]
port = 6114
-- a.json5 --
{ host: '0.0.0.0', /* any */ }
-- a.js --
const TOML = require('@iarna/toml'), JSON5 = require('json5'), fs = require('fs');
const t = TOML.parse(fs.readFileSync('a.toml', 'utf8')), j = JSON5.parse(fs.readFileSync('a.json5', 'utf8'));
require('http').createServer((q, r) => r.end()).listen(t.web.port, j.host);
`, ` => any 6114`},
	{"get-port", `-- Procfile --
web: node a.mjs
-- package.json --
{"name":"a","type":"module","dependencies":{"get-port":"^7"}}
-- a.mjs --
import getPort from 'get-port';
import http from 'node:http';
http.createServer((q, r) => r.end()).listen(process.env.PORT ?? await getPort({ port: 6115 }));
`, ` => any 6115
PORT=8115 => any 8115`},
	{"h3 listen", `-- Procfile --
web: node a.mjs
-- package.json --
{"name":"a","type":"module","dependencies":{"h3":"^1"}}
-- a.mjs --
import { createApp, eventHandler, toNodeListener } from 'h3';
import { createServer } from 'node:http';
const app = createApp();
app.use('/', eventHandler(() => 'x'));
createServer(toNodeListener(app)).listen(process.env.PORT || 6119);
`, ` => any 6119
PORT=8119 => any 8119`},
	{"restify", `-- Procfile --
web: node a.js
-- package.json --
{"name":"a","dependencies":{"spdy":"^4"}}
-- a.js --
const spdy = require('spdy');
const s = spdy.createServer({ spdy: { plain: true, ssl: false, protocols: ['http/1.1'] } }, (q, r) => r.end());
s.listen(process.env.PORT || 6122, '0.0.0.0');
`, ` => any 6122
PORT=8122 => any 8122`},
	{"http-proxy", `-- Procfile --
web: node a.js
-- package.json --
{"name":"a","dependencies":{"http-proxy":"^1"}}
-- a.js --
const httpProxy = require('http-proxy');
httpProxy.createProxyServer({ target: 'http://127.0.0.1:9000' }).listen(+process.env.PORT || 6123);
`, ` => any 6123
PORT=8123 => any 8123`},
	{"apollo standalone", `-- Procfile --
web: node a.js
-- package.json --
{"name":"a","dependencies":{"apollo-server":"^3","graphql":"^16"}}
-- a.js --
const { ApolloServer, gql } = require('apollo-server');
const server = new ApolloServer({ typeDefs: gql` + "`" + `type Query { sky: String }` + "`" + `, resolvers: { Query: { sky: () => 'clear' } } });
server.listen({ port: process.env.PORT || 6124 }).then(({ url }) => console.log(url));
`, ` => any 6124
PORT=8124 => any 8124`},
	{"yup async with oneof and required", `-- Procfile --
web: node a.mjs
-- package.json --
{"name":"a","type":"module","dependencies":{"yup":"^1"}}
-- a.mjs --
import * as yup from 'yup';
import http from 'node:http';
const schema = yup.object().shape ? yup.object({ PORT: yup.number().required().integer().positive(), MODE: yup.string().trim().oneOf(['slow', 'quick']).default('slow'), OPEN: yup.boolean().default(true) }) : null;
schema.validate(process.env).then(({ PORT, MODE, OPEN }) => {
  http.createServer((q, r) => r.end(MODE)).listen(PORT, OPEN ? '0.0.0.0' : '127.0.0.1');
}).catch((e) => { console.error(e.errors); process.exit(1); });
`, `PORT=8125 => any 8125
 => exits
PORT=8125 MODE=fast => exits`},
	{"minimist types", `-- Procfile --
web: node a.js -vp 6126 --no-open --name 12 x -- y
-- package.json --
{"name":"a","dependencies":{"minimist":"^1"}}
-- a.js --
const argv = require('minimist')(process.argv.slice(2), { boolean: ['v', 'open'], string: 'name', alias: { p: ['port'] }, '--': false });
if (argv.v !== true || argv.open !== false || argv.name !== '12' || argv._.join() !== 'x,y') process.exit(3);
require('http').createServer((q, r) => r.end()).listen({ port: argv.port, host: argv.name === '12' ? '0.0.0.0' : '127.0.0.1' });
`, ` => any 6126`},
	{"portfinder", `-- Procfile --
web: node a.js
-- package.json --
{"name":"a","dependencies":{"portfinder":"^1"}}
-- a.js --
const portfinder = require('portfinder');
portfinder.getPortPromise({ port: 6127 }).then((port) => require('http').createServer((q, r) => r.end()).listen(port));
`, ` => any 6127`},
}

func TestSettingsLibraries(t *testing.T) {
	t.Parallel()
	agree(t, settingsLibraries)
}
