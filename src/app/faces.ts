import localFont from 'next/font/local';

/**
 * The faces of the product: asked for with the page, and shown only where they are there in time, so that no text moves under a
 * finger. Letters beyond plain Latin, as names have them, come when one is there to be shown.
 */
export const sans = localFont({
  src: '../../node_modules/@fontsource-variable/atkinson-hyperlegible-next/files/atkinson-hyperlegible-next-latin-wght-normal.woff2',
  weight: '200 800',
  display: 'optional',
  variable: '--face-sans',
  adjustFontFallback: false,
});
export const mono = localFont({
  src: '../../node_modules/@fontsource-variable/martian-mono/files/martian-mono-latin-wdth-normal.woff2',
  weight: '100 800',
  declarations: [{ prop: 'font-stretch', value: '75% 112.5%' }],
  display: 'optional',
  variable: '--face-mono',
  adjustFontFallback: false,
});
export const more = localFont({
  src: '../../node_modules/@fontsource-variable/atkinson-hyperlegible-next/files/atkinson-hyperlegible-next-latin-ext-wght-normal.woff2',
  weight: '200 800',
  declarations: [
    {
      prop: 'unicode-range',
      value:
        'U+0100-02BA,U+02BD-02C5,U+02C7-02CC,U+02CE-02D7,U+02DD-02FF,U+0304,U+0308,U+0329,U+1D00-1DBF,U+1E00-1E9F,U+1EF2-1EFF,U+2020,U+20A0-20AB,U+20AD-20C0,U+2113,U+2C60-2C7F,U+A720-A7FF',
    },
  ],
  display: 'optional',
  preload: false,
  variable: '--face-more',
  adjustFontFallback: false,
});
