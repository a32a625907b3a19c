const taken = new Map();

function nextNights(seats) {
  const nights = [];
  const day = new Date();
  for (let i = 0; i < 7; i++) {
    const date = day.toISOString().slice(0, 10);
    nights.push({ date, left: seats - (taken.get(date) || []).length });
    day.setDate(day.getDate() + 1);
  }
  return nights;
}

function book(date, visitor) {
  const visitors = taken.get(date) || [];
  if (visitors.length >= 12) {
    return null;
  }
  taken.set(date, [...visitors, visitor]);
  return visitors.length + 1;
}

module.exports = { nextNights, book };
