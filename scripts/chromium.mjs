// The browser that tests, pictures and measurements drive, and how it is started.
import fs from 'node:fs';

const PLACES = ['/usr/bin/chromium-headless-shell', '/usr/bin/chromium'];

/** Path of the browser: what the variable CHROMIUM names, else the headless build, else the whole browser; undefined if there is none. */
export const chromiumPath = () => [process.env.CHROMIUM ?? PLACES].flat().find((place) => fs.existsSync(place));

/** How it is started. Pages of tests live for seconds: code is optimised only once it has run for long, which saves a tenth of the work. */
export const chromiumOptions = () => ({
  executablePath: chromiumPath(),
  args: [
    '--headless',
    '--no-sandbox',
    '--disable-gpu',
    '--disable-quic',
    '--no-first-run',
    '--disable-background-networking',
    '--disable-component-update',
    '--disable-sync',
    '--js-flags=--interrupt-budget=1000000 --interrupt-budget-for-maglev=400000',
  ],
});
