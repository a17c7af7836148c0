/** A first entity, a second, and a first sentence about them: what an empty design can begin with. */
export const FIRST_STATEMENTS = `entity Route
  name: text(1..120), required

entity Sailing
  departsAt: instant, required

each Route owns many Sailing as sailings, back as route
`;
