import { defineConfig } from '@playwright/test';
import { launchOptions } from './scripts/chromium.mjs';

/** How many journeys are walked: `core` in ./check, all of them otherwise. */
const core = process.env.VAST_JOURNEYS === 'core';

/** Debian's Chromium; no browser of its own is downloaded. Servers are started by scripts/check.mjs, two of them. */
export default defineConfig({
  testDir: 'e2e',
  // one for each server
  workers: (process.env.VAST_E2E_URL ?? '').split(',').length,
  // a slow machine is no failure: what hangs fails at its expectation, long before
  timeout: 900_000,
  expect: { timeout: 45_000 },
  // each run of it empties its folder
  outputDir: process.env.VAST_E2E_OUTPUT ?? '.check/playwright',
  reporter: process.env.VAST_E2E_JSON
    ? [['list'], ['json', { outputFile: process.env.VAST_E2E_JSON }]]
    : 'list',
  use: {
    // an act that finds nothing to act on says so after two minutes, not at the end of the journey
    actionTimeout: 120_000,
    // costs half as much again as the test; `--trace on` shows what a failing one did
    trace: 'off',
    screenshot: 'only-on-failure',
    launchOptions,
  },
  projects: [
    // each journey runs where it is walked in life; what both screens must carry is tagged @both, and is walked on the
    // phone alone by `./check`, which leaves @further out
    {
      name: 'wide',
      use: { viewport: { width: 1280, height: 800 } },
      testIgnore: /fault|servers/,
      grepInvert: core ? /@further|@phone|@both/ : /@phone/,
    },
    {
      name: 'phone',
      use: { viewport: { width: 390, height: 844 }, hasTouch: true },
      grep: /@phone|@both/,
      ...(core ? { grepInvert: /@further/ } : {}),
    },
    { name: 'fault', use: { viewport: { width: 1280, height: 800 } }, testMatch: /fault|servers/ },
  ],
});
