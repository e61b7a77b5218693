/** What the browser does beside showing a page; the first two load pages of their own for its address bar with every page. */
const NOT_NEEDED = [
  'WebUIOmniboxPopup',
  'WebUIOmniboxAimPopup',
  'AimEnabled',
  'PreconnectToSearch',
  'OptimizationHints',
  'MediaRouter',
  'NetworkTimeServiceQuerying',
  'HttpsUpgrades',
  'PaintHolding',
  'DestroyProfileOnBrowserClose',
  'AvoidUnnecessaryBeforeUnloadCheckSync',
];

/** How Chromium is started for the tests, the pictures and the measurements: by itself, and with nothing to ask of a network. */
export const CHROMIUM = {
  executablePath: process.env['CHROMIUM'] ?? '/usr/bin/chromium',
  args: [
    '--no-sandbox',
    '--disable-gpu',
    '--disable-quic',
    '--no-first-run',
    '--disable-background-networking',
    '--disable-component-update',
    '--disable-sync',
    '--autoplay-policy=no-user-gesture-required',
    `--disable-features=${NOT_NEEDED.join(',')}`,
  ],
};

/** The same with a microphone that hears a sound file, once. */
export const hearing = (file: string) => ({
  ...CHROMIUM,
  args: [
    ...CHROMIUM.args,
    '--use-fake-ui-for-media-stream',
    '--use-fake-device-for-media-stream',
    `--use-file-for-fake-audio-capture=${file}%noloop`,
  ],
});
