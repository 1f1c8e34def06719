import type { Request } from 'express';
import { parseRandomId, type RandomId } from '../src/core/figures/random-id';

/** Reads the id in the address of a request. @throws ZodError where it is none: whoever mounts the route looks first. */
export const readRouteId = (request: Request): RandomId => parseRandomId(String(request.params.id));
