import { useEffect, useState } from "react";

/** What the server's clock says, every half second: this one's, so much ahead [ms]. */
export function useServerNow(ahead: number): number {
  const [now, tick] = useState(() => Date.now());
  useEffect(() => {
    const timer = setInterval(() => tick(Date.now()), 500);
    return () => clearInterval(timer);
  }, []);
  return now + ahead;
}
