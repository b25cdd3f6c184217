/** What is switched off: popups of the address bar, for each of which every window would start a process. */
const WITHOUT = ['WebUIOmniboxPopup', 'WebUIOmniboxAimPopup'];
/** What a browser under test goes without anyway: the last list given is the one that counts. */
const WITHOUT_ANYWAY = [
  'AvoidUnnecessaryBeforeUnloadCheckSync',
  'DestroyProfileOnBrowserClose',
  'HttpsUpgrades',
  'MediaRouter',
  'OptimizationHints',
  'PaintHolding',
  'ThirdPartyStoragePartitioning',
];

/** Debian's Chromium, kept from looking for anything outside. */
export const CHROMIUM = {
  executablePath: '/usr/bin/chromium',
  args: [
    '--no-sandbox',
    '--disable-gpu',
    '--disable-background-networking',
    '--disable-component-update',
    '--disable-sync',
    `--disable-features=${[...WITHOUT_ANYWAY, ...WITHOUT].join(',')}`,
  ],
};
