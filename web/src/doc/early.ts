/**
 * Questions about a document that go out the moment it changes, before anything is drawn of it: the server works
 * while the browser draws. Each is handed out once; whoever comes later asks anew.
 */
export class Early<Subject extends object, Answer> {
  private readonly underWay = new WeakMap<Subject, Promise<Answer>>();

  constructor(private readonly ask: (subject: Subject) => Promise<Answer>) {}

  /** Ask now; the answer is fetched with `taken`, or by nobody when the subject has changed again. */
  readonly foresee = (subject: Subject): void => {
    const answer = this.ask(subject);
    answer.catch(() => undefined); // a refusal that nobody fetches is no fault
    this.underWay.set(subject, answer);
  };

  /** The answer that is under way, or that of a question asked now. */
  readonly taken = (subject: Subject): Promise<Answer> => {
    const answer = this.underWay.get(subject) ?? this.ask(subject);
    this.underWay.delete(subject);
    return answer;
  };
}
