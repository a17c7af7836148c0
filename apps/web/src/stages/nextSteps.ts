/** What to do next at each stage, by its address, while a design says next to nothing. */
export const NEXT_STEPS: Readonly<Record<string, string>> = {
  model:
    'Next: entities, and a sentence about two of them, such as each Route owns many Sailing as sailings.',
  arrange:
    'Next: choose the basics on the left, such as the version or the case; every path follows at once.',
  contract: 'Next: choose a cell to read an operation: what goes in, what comes out, and why.',
  mock: 'Next: start the mock, then call it: the line below is ready for a terminal.',
};
