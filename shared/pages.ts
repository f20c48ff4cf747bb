/** Shapes of the addresses of pages: the list, About, a song and what is seen of it. The server knows no others. */
const PAGES = [/^\/$/, /^\/about\/?$/, /^\/songs\/[^/]+(?:\/[a-z]+)?\/?$/];

export const isPage = (path: string): boolean => PAGES.some((page) => page.test(path));
