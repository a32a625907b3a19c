import { build } from "./app.js";

const { PORT = "3000", HOST = "0.0.0.0" } = process.env;

const app = build({ logger: true });

try {
  await app.listen({ port: Number(PORT), host: HOST });
} catch (err) {
  app.log.error(err);
  process.exit(1);
}
