/** "Too many at once": nothing of the request was done, and it is welcome in a moment. */
const CROWDED = 429;
/** So many times it is asked again before a person is told. */
export const TRIES = 4;

interface Answered {
  response: Response;
}

/** A call that asks again where the server has no place just now, after as long as the server says. */
export function patient<Asked extends unknown[], Answer extends Answered>(
  call: (...asked: Asked) => Promise<Answer>,
): (...asked: Asked) => Promise<Answer> {
  return async (...asked) => {
    for (let again = 0; ; again++) {
      const answer = await call(...asked);
      if (answer.response.status !== CROWDED || again === TRIES) return answer;
      const seconds = Number(answer.response.headers.get("Retry-After") ?? 1);
      await new Promise((done) => setTimeout(done, 1000 * seconds));
    }
  };
}
