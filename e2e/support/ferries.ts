/** Routes own sailings, and these bookings: what is removed takes others along. */
export const FERRIES = `entity Route
  code: text(2..6), key
  name: text(1..60), required

entity Sailing
  berth: text(1..4)
  seats: integer(0..900), required
  state: choice(planned, departed), default planned
    depart: planned -> departed

entity Booking
  name: text(1..40), required

each Route owns many Sailing as sailings, back as route
each Sailing owns many Booking as bookings, back as sailing
`;
