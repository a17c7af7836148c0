// Tests that run beside each other give their mocks ports apart, so that each gets its own back. What they start, too.
const FIRST = 6100;
const EACH = 400;
const worker = Number(process.env['JEST_WORKER_ID'] ?? 1);
process.env['ISOMEROS_MOCK_PORT'] = String(FIRST + (worker - 1) * EACH);
