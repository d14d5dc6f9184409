/** The rooms of setup, in their order. */
export const ROOMS = [
  { path: '/setup/people', name: 'people', house: true },
  { path: '/setup/authority', name: 'authority', house: false },
  { path: '/setup/policies', name: 'when somebody must be asked', house: false },
  { path: '/setup/checks', name: 'checks', house: false },
  { path: '/setup/rights', name: 'what each role may', house: false },
  { path: '/setup/ways', name: 'ways in', house: true },
  { path: '/setup/keys', name: 'keys of machines', house: true },
  { path: '/setup/house', name: 'the house', house: true },
] as const;

/** Those that somebody may enter. */
export const roomsFor = (runsHouse: boolean) => ROOMS.filter((r) => runsHouse || !r.house);
