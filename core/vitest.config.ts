import { defineConfig } from 'vitest/config';

// Slow machines stall now and then: a test fails for what it finds, not for how long it took.
export default defineConfig({ test: { include: ['src/**/*.test.ts'], testTimeout: 60_000, hookTimeout: 60_000 } });
