// One place for everything that differs between my laptop and the hill.
module.exports = {
  port: process.env.port || 3000,
  site: process.env.SITE_NAME || "The observatory on the hill",
  seats: Number(process.env.SEATS) || 12,
};
