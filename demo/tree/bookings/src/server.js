const express = require("express");
const session = require("express-session");
const config = require("./config");
const { nextNights, book } = require("./nights");

const app = express();
app.use(express.json());
app.use(
  session({
    secret: "orion-rises-at-nine",
    resave: false,
    saveUninitialized: false,
  }),
);

app.get("/", (req, res) => {
  res.json({ site: config.site, nights: nextNights(config.seats) });
});

app.post("/nights/:date/bookings", (req, res) => {
  const place = book(req.params.date, req.body.visitor);
  if (!place) {
    return res.status(409).json({ error: "no place left on that night" });
  }
  req.session.place = place;
  res.status(201).json({ place });
});

app.listen(config.port, () => {
  console.log(`bookings are open on ${config.port}`);
});
