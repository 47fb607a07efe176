import { matchRoutes, type RouteObject, type ServerBuild } from 'react-router';
import { z } from 'zod';

/** What a route says of itself to what stands around the pages. */
const aboutRoute = z.object({ largestBody: z.number().int().positive() });
export type AboutRoute = z.infer<typeof aboutRoute>;

/** An address as the server knows it before a page does. */
export interface KnownRoute {
  /** The route's own pattern: `/students/:studentId`, with nothing of what was asked for. */
  pattern: string;
  params: Record<string, string | undefined>;
  /** The largest body that it takes, where it says so by `handle`. */
  largestBody: number | null;
}

const UNKNOWN: KnownRoute = { pattern: '/*', params: {}, largestBody: null };

let tree: RouteObject[] = [];

/** Learns the routes of a build: once, before anything is asked for. */
export function knowRoutes(routes: ServerBuild['routes']): void {
  const below = (parentId: string | undefined): RouteObject[] =>
    Object.values(routes).flatMap((route) => {
      if (!route || route.parentId !== parentId) return [];
      const { id, path, index, module } = route;
      const node = { id, ...(path !== undefined && { path }), handle: module.handle };
      return [index ? { ...node, index: true as const } : { ...node, children: below(id) }];
    });
  tree = below(undefined);
}

/** Which route an address is of, `.data` or not. */
export function routeAt(path: string): KnownRoute {
  const [pathname = ''] = path.split('?');
  const isData = pathname.endsWith('.data');
  const page = pathname === '/_root.data' ? '/' : pathname.replace(/\.data$/, '');
  const matches = matchRoutes(tree, page === '' ? '/' : page);
  const last = matches?.at(-1);
  if (!matches || !last) return UNKNOWN;
  const pattern = `/${matches.flatMap(({ route }) => route.path || []).join('/')}`;
  const about = aboutRoute.safeParse(last.route.handle);
  return {
    pattern: isData ? `${pattern}.data` : pattern,
    params: last.params,
    largestBody: about.success ? about.data.largestBody : null,
  };
}
