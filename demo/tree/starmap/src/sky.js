const canvas = document.getElementById("sky");
const pen = canvas.getContext("2d");

pen.fillStyle = "#0b1020";
pen.fillRect(0, 0, canvas.width, canvas.height);

// Altitude and azimuth to the flat disc: the zenith is in the middle.
export function place(altitude, azimuth, radius = 400) {
  const r = radius * (1 - altitude / 90);
  const a = (azimuth * Math.PI) / 180;
  return [radius + r * Math.sin(a), radius - r * Math.cos(a)];
}

for (const [altitude, azimuth] of [[61, 120], [45, 75], [33, 160]]) {
  const [x, y] = place(altitude, azimuth);
  pen.fillStyle = "#ffffff";
  pen.fillRect(x - 1, y - 1, 3, 3);
}
