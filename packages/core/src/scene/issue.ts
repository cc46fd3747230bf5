import type * as z from 'zod/mini';

/** A complaint of a schema: where, why, and by which rule. */
export interface Issue {
  path: PropertyKey[];
  message: string;
  code?: string;
  minimum?: number;
  maximum?: number;
  inclusive?: boolean;
  origin?: string;
  keys?: string[];
  expected?: string;
  errors?: Issue[][];
}

/** The first complaint; inside a union, the branch that got furthest tells most. */
export const firstIssue = (error: z.core.$ZodError): Issue => deepest(error.issues as unknown as Issue[]);

function deepest(issues: readonly Issue[]): Issue {
  const issue = issues[0];
  const branches = issue.errors?.filter((branch) => branch.length > 0).map(deepest) ?? [];
  const best = branches.sort((a, b) => b.path.length - a.path.length)[0];
  return best && best.path.length > 0 ? { ...best, path: [...issue.path, ...best.path] } : issue;
}
