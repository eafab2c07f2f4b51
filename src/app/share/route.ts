/**
 * Where another program shares files to. The service worker answers it and keeps them; without one nothing could be kept,
 * and the page says so.
 */
export const POST = (): Response => new Response(null, { status: 303, headers: { location: '/shared' } });
