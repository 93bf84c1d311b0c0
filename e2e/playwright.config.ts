import { defineConfig } from '@playwright/test';

const port = 4199;

export default defineConfig({
  testDir: '.',
  testMatch: '*.spec.ts',
  timeout: 180_000,
  // Software drawing on two cores is slow; a real page answers at once.
  expect: { timeout: 20_000 },
  // On two busy cores a journey may run out of patience: once more there, and told as flaky by the list.
  retries: process.env['CI'] ? 1 : 0,
  workers: 2,
  fullyParallel: true,
  reporter: [['list'], ['json', { outputFile: 'test-results/report.json' }]],
  use: {
    baseURL: `http://127.0.0.1:${port}`,
    // Every journey would keep the whole program once more; the one that is about that allows it.
    serviceWorkers: 'block',
    viewport: { width: 1280, height: 800 },
    launchOptions: {
      executablePath: process.env['CHROMIUM'] ?? '/usr/bin/chromium',
      args: [
        '--no-sandbox',
        '--use-angle=swiftshader',
        '--enable-unsafe-swiftshader',
        // A machine without a graphics card paints the page itself, whatever draws in 3D.
        '--disable-gpu-compositing',
        '--disable-gpu-rasterization',
        '--disable-background-networking',
        '--disable-component-update',
        '--disable-sync',
        '--disable-quic',
        '--no-first-run',
      ],
    },
  },
  webServer: {
    command: `node ../server/dist/serve.js`,
    // Slow enough to be held while it works.
    env: { PORT: String(port), CUTTER_PACE: '4' },
    url: `http://127.0.0.1:${port}/`,
    reuseExistingServer: false,
  },
});
