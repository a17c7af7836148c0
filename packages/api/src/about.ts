import type { OpenApiBody } from './publications.js';

/** What the interface says of itself. */
export interface AboutRoutes {
  /** This description */
  'GET /api/openapi.json': { readonly answer: OpenApiBody };
  /** Read what each type of problem means */
  'GET /api/problems': {
    readonly answer: { readonly [name: string]: { readonly status: number; readonly title: string } };
  };
}
