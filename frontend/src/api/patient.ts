/** How often a busy server is asked again, and how long at most is waited between two tries. */
const TRIES = 5;
const LONGEST_S = 4;

const pause = (ms: number) => new Promise((done) => setTimeout(done, ms));

/**
 * Asks again where the server says that it is busy: it has then done nothing, so asking twice
 * does nothing twice. Every other answer is handed on as it is.
 */
export async function patient(
  request: Request,
  send: (request: Request) => Promise<Response> = (one) => fetch(one),
): Promise<Response> {
  for (let tries = 1; ; tries += 1) {
    // A request can be sent once; what is sent again is a copy.
    const answer = await send(tries < TRIES ? request.clone() : request);
    if (answer.status !== 503 || tries === TRIES) return answer;
    const wait = Math.min(Number(answer.headers.get("Retry-After")) || 1, LONGEST_S);
    // Tabs that were turned away together do not come back together.
    await pause(wait * 1000 * (0.5 + Math.random()));
  }
}
