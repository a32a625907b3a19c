import Fastify from "fastify";
import { byConstellation, byName } from "./stars.js";

export function build(options) {
  const app = Fastify(options);

  app.get("/", async () => ({ stars: byName.size }));

  app.get("/stars/:name", async (request, reply) => {
    const star = byName.get(request.params.name.toLowerCase());
    if (!star) {
      return reply.code(404).send({ error: "not in the catalogue" });
    }
    return star;
  });

  app.get("/constellations/:name", async (request) => {
    return byConstellation(request.params.name);
  });

  return app;
}
