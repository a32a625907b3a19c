const stars = [
  { name: "Vega", constellation: "Lyra", magnitude: 0.03 },
  { name: "Deneb", constellation: "Cygnus", magnitude: 1.25 },
  { name: "Altair", constellation: "Aquila", magnitude: 0.76 },
  { name: "Rigel", constellation: "Orion", magnitude: 0.13 },
  { name: "Betelgeuse", constellation: "Orion", magnitude: 0.5 },
];

export const byName = new Map(stars.map((s) => [s.name.toLowerCase(), s]));

export function byConstellation(name) {
  return stars
    .filter((s) => s.constellation.toLowerCase() === name.toLowerCase())
    .sort((a, b) => a.magnitude - b.magnitude);
}
