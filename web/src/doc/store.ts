import { Refusal, sentence } from "../api/client";
import type { Line, OpenLine } from "../api/types";
import { differences, merged } from "./differ";
import type { Drafts } from "./draft";

export const QUIET_MS = 450;
export const RETRY_MS = 4000;

export type SaveState = "saved" | "typing" | "saving" | "failed" | "refused" | "conflict";

export interface Conflict {
  version: number;
  theirs: Line;
  /** What both started from, where that is still known. */
  base: Line | null;
}

export interface LineState {
  document: Line;
  opened: OpenLine;
  save: SaveState;
  saveMessage: string;
  savedAt: Date | null;
  conflict: Conflict | null;
}

export interface LineCalls {
  save: (version: number, document: Line) => Promise<OpenLine>;
  step: (way: "undo" | "redo", version: number) => Promise<OpenLine>;
  /** Hears of what is typed before anybody draws it. */
  foresee: (document: Line) => void;
}

/** Worth another try by itself: nobody answered, or the server was busy or failed. */
const passing = (error: unknown): boolean => !(error instanceof Refusal) || error.status === 0 || error.status >= 500;

/**
 * One line being edited. Every change is kept at once, here and as a draft, and saved after a short quiet. Saves,
 * undos and redos run one after the other in one queue, so that none overtakes another's version; what is typed
 * while one is under way stays.
 */
export class LineStore {
  private state: LineState;
  private readonly listeners = new Set<() => void>();
  private queue: Promise<void> = Promise.resolve();
  private timer: ReturnType<typeof setTimeout> | undefined;
  /** What is saved under `version`, null where only the version is known. */
  private base: Line | null;
  private version: number;
  private dirty = false;

  constructor(
    first: OpenLine,
    private readonly calls: LineCalls,
    private readonly drafts: Drafts,
  ) {
    this.version = first.version;
    this.base = first.document;
    this.state = {
      document: first.document,
      opened: first,
      save: "saved",
      saveMessage: "",
      savedAt: null,
      conflict: null,
    };
    const draft = drafts.read();
    if (draft) {
      // what a reload or a crash left unsaved is put back, against the version it was typed on
      this.version = draft.version;
      this.base = draft.base;
      this.dirty = true;
      this.state = { ...this.state, document: draft.document, save: "typing" };
    }
  }

  readonly subscribe = (listener: () => void): (() => void) => {
    this.listeners.add(listener);
    return () => this.listeners.delete(listener);
  };

  readonly getState = (): LineState => this.state;

  /** Send what waits: what an earlier page left unsaved, or what is typed when the page is left. */
  readonly flush = (): Promise<void> => this.inTurn(() => this.push());

  readonly retry = this.flush;

  readonly edit = (change: (line: Line) => Line): void => {
    const next = change(this.state.document);
    if (next === this.state.document) return;
    this.dirty = true;
    this.calls.foresee(next);
    this.tell({ document: next, ...(this.state.conflict ? {} : { save: "typing" }) });
    this.keep();
    if (!this.state.conflict) this.later(QUIET_MS);
  };

  readonly undo = (): void => void this.inTurn(() => this.step("undo"));
  readonly redo = (): void => void this.inTurn(() => this.step("redo"));

  /** Have the server change the line as it is saved, such as sign it off; returns why not, or nothing. */
  readonly ask = async (call: (version: number) => Promise<OpenLine>): Promise<string> => {
    let refused = "";
    await this.inTurn(async () => {
      await this.push();
      if (this.dirty || this.state.conflict) {
        refused = "What was typed is not saved yet; settle that first.";
        return;
      }
      const before = this.state.document;
      try {
        const answer = await call(this.version);
        if (this.state.document === before) this.tell({ document: answer.document });
        this.accept(answer);
      } catch (error) {
        refused = sentence(error);
      }
    });
    return refused;
  };

  /** Settle a conflict with this document, made of both versions. */
  readonly settle = (settled: Line): void => {
    const { conflict, opened } = this.state;
    if (!conflict) return;
    this.version = conflict.version;
    this.base = conflict.theirs;
    this.dirty = differences(settled, conflict.theirs).length > 0;
    this.tell({
      document: settled,
      conflict: null,
      saveMessage: "",
      save: this.dirty ? "typing" : "saved",
      opened: { ...opened, version: conflict.version, document: conflict.theirs, can_undo: true },
    });
    if (this.dirty) {
      this.keep();
      void this.flush();
    } else this.drafts.drop();
  };

  private tell(change: Partial<LineState>): void {
    this.state = { ...this.state, ...change };
    for (const listener of this.listeners) listener();
  }

  private keep(): void {
    this.drafts.keep({ version: this.version, document: this.state.document, base: this.base });
  }

  private later(ms: number): void {
    clearTimeout(this.timer);
    this.timer = setTimeout(() => void this.flush(), ms);
  }

  private inTurn(work: () => Promise<void>): Promise<void> {
    this.queue = this.queue.then(work);
    return this.queue;
  }

  private async push(): Promise<void> {
    clearTimeout(this.timer);
    if (!this.dirty || this.state.conflict) return;
    const sent = this.state.document;
    this.tell({ save: "saving" });
    try {
      const answer = await this.calls.save(this.version, sent);
      if (this.state.document === sent) this.dirty = false;
      this.accept(answer);
    } catch (error) {
      this.fail(error, sent);
    }
  }

  private async step(way: "undo" | "redo"): Promise<void> {
    await this.push();
    if (this.dirty && way === "undo" && this.state.save === "refused") {
      // what cannot be saved is a step too, though none that was kept
      this.dirty = false;
      this.drafts.drop();
      this.tell({ document: this.state.opened.document, save: "saved", saveMessage: "" });
      return;
    }
    if (this.dirty) return;
    const before = this.state.document;
    try {
      const answer = await this.calls.step(way, this.version);
      const now = this.state.document;
      if (now === before) this.tell({ document: answer.document });
      else {
        // typed meanwhile: it is put on top of what the step brought back
        const found = differences(now, answer.document, before);
        const mine = new Map(
          found.filter((item) => item.changed !== "theirs").map((item) => [item.pointer, "mine" as const]),
        );
        this.tell({ document: merged(now, answer.document, found, mine) });
        this.dirty = true;
      }
      this.accept(answer);
      if (this.dirty) this.later(QUIET_MS);
    } catch (error) {
      // nothing to undo: the button was pressed once too often
      if (!(error instanceof Refusal && error.status === 422)) this.fail(error, before);
    }
  }

  private accept(answer: OpenLine): void {
    this.version = answer.version;
    this.base = answer.document;
    if (this.dirty) {
      this.keep();
      this.tell({ opened: answer, saveMessage: "", save: "typing" });
    } else {
      this.drafts.drop();
      this.tell({ opened: answer, saveMessage: "", save: "saved", savedAt: new Date() });
    }
  }

  private fail(error: unknown, sent: Line): void {
    if (error instanceof Refusal && error.status === 409 && error.version !== null && error.current) {
      if (differences(sent, error.current).length === 0) {
        // our own save arrived, only its answer was lost, as when the page was reloaded meanwhile
        if (this.state.document === sent) this.dirty = false;
        this.accept({
          ...this.state.opened,
          version: error.version,
          document: error.current,
          can_undo: true,
          can_redo: false,
        });
        if (this.dirty) this.later(QUIET_MS);
        return;
      }
      this.tell({
        conflict: { version: error.version, theirs: error.current, base: this.base },
        save: "conflict",
        saveMessage: error.message,
      });
      return;
    }
    const again = passing(error);
    this.tell({ save: again ? "failed" : "refused", saveMessage: sentence(error) });
    if (again && this.dirty) this.later(RETRY_MS);
  }
}
