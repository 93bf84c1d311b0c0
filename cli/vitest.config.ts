import { defineConfig } from 'vitest/config';

// Slow machines stall now and then: a test fails for what it finds, not for how long it took.
// Every core works: by itself the runner leaves one idle, which is half of a machine of two.
export default defineConfig({
  test: { include: ['src/**/*.test.ts'], testTimeout: 60_000, hookTimeout: 60_000, maxWorkers: '100%' },
});
