import type { Refusal } from '@velvet-reed/contract';
import type { Express, RequestHandler } from 'express';
import { NoSuchAddressError } from './refusals';

const METHODS = ['GET', 'POST', 'PATCH', 'PUT', 'DELETE'] as const;

/** Whether a route is for a path; the types of the framework do not name what its router asks. */
function fits(layer: object, path: string): boolean {
  const match: unknown = Reflect.get(layer, 'match');
  return typeof match === 'function' && Boolean(Reflect.apply(match, layer, [path]));
}

/** Stands behind all routes: an address that is there but does not do what was asked is told so (RFC 9110, 15.5.6), with what it does. */
export const otherMethods =
  (app: Express): RequestHandler =>
  (req, res, next) => {
    const path = `${req.baseUrl}${req.path}`;
    const known = app.router.stack.flatMap((layer) =>
      layer.route?.path.startsWith('/api') && fits(layer, path) ? [layer.route] : [],
    );
    const allowed = METHODS.filter((method) =>
      known.some((route) => route.stack.some((handler) => handler.method === method.toLowerCase())),
    );
    if (allowed.length === 0) return next(new NoSuchAddressError());
    res.set('Allow', allowed.join(', '));
    res.status(405).json({
      code: 'METHOD',
      message: 'This address does not do that. Reload the page and try again.',
    } satisfies Refusal);
  };
