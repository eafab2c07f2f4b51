import type { MetadataRoute } from 'next';

/** What a device needs to keep Vast Stone beside its other programs; it opens on Today, without a signal too. */
export default function manifest(): MetadataRoute.Manifest {
  return {
    id: '/',
    name: 'Vast Stone',
    short_name: 'Vast Stone',
    description: 'A test bench for tightness work.',
    start_url: '/today',
    scope: '/',
    display: 'standalone',
    background_color: '#e9ece9',
    theme_color: '#0b5a73',
    icons: [
      { src: '/icon-192.png', sizes: '192x192', type: 'image/png', purpose: 'any' },
      { src: '/icon-512.png', sizes: '512x512', type: 'image/png', purpose: 'any' },
      { src: '/icon-maskable.png', sizes: '512x512', type: 'image/png', purpose: 'maskable' },
    ],
    share_target: {
      action: '/share',
      method: 'post',
      enctype: 'multipart/form-data',
      params: {
        title: 'title',
        text: 'text',
        url: 'url',
        files: [{ name: 'files', accept: ['image/*', 'text/csv', 'text/plain', '.csv', '.txt', '.tsv'] }],
      },
    },
    shortcuts: [
      { name: 'Test now', url: '/test' },
      { name: 'Places', url: '/places' },
      { name: 'Cabinet', url: '/cabinet' },
      { name: 'Desk', url: '/desk' },
    ],
  };
}
