/** Models that several layouts share, and what most of them begin with. */
export const OWNED =
  'entity Route\nentity Sailing\n  name: text\neach Route owns many Sailing as sailings, back as route';
export const THREE =
  'entity Route\nentity Sailing\nentity Booking\neach Route owns many Sailing as sailings\neach Sailing owns many Booking as bookings';
export const SLOT = 'entity Vessel\nentity Paper\n  number: text\neach Vessel owns optional Paper as paper';
export const REFERS =
  'entity Harbour\nentity Route\neach Route refers to optional Harbour as origin, back as departures';
export const PAIRS =
  'entity Sailing\nentity Crew\neach Sailing pairs with many Crew as crew, back as sailings';
export const CARRYING = `value Duty\n  role: text, required\n${PAIRS}, carrying Duty`;
export const MOVES = 'entity Trip\n  state: choice(open, shut), default open\n    close: open -> shut';

export const ROUTES = ['/routes: list create', '/routes/{routeId}: read replace change remove'];
