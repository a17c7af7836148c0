/** Routes by their names, each with its sailings. */
export const ROUTES =
  'entity Route\n  name: text(1..60), required, unique\n\nentity Sailing\n  berth: text(1..4)\n\neach Route owns many Sailing as sailings\n';
