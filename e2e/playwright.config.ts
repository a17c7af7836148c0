import { defineConfig } from '@playwright/test';

export default defineConfig({
  testDir: '.',
  // Generous: a loaded machine is slow, not wrong.
  timeout: 240_000,
  expect: { timeout: 40_000 },
  workers: 2,
  fullyParallel: true,
  reporter: [
    ['list'],
    ['json', { outputFile: process.env['ISOMEROS_E2E_RESULTS'] ?? 'test-results/e2e.json' }],
  ],
  use: {
    // An action that cannot be done says which it was, before the test as a whole ends.
    actionTimeout: 60_000,
    viewport: { width: 1280, height: 800 },
    colorScheme: 'light',
    // What is pressed stands still.
    contextOptions: { reducedMotion: 'reduce' },
    launchOptions: {
      executablePath: process.env['ISOMEROS_CHROMIUM'] ?? '/usr/bin/chromium-headless-shell',
      args: [
        '--no-sandbox',
        '--disable-gpu',
        '--disable-quic',
        '--no-first-run',
        '--disable-background-networking',
        '--disable-component-update',
        '--disable-sync',
      ],
    },
  },
});
