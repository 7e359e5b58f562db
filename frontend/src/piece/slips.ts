import { ApiError } from "../api/client";

/** What the server asks about a length that looks like a slip; nothing for any other error. */
export function asksWhether(error: Error | null): string | undefined {
  if (!(error instanceof ApiError)) return undefined;
  return error.details.problems?.find((one) => one.key.startsWith("cut_far"))?.says;
}
