import { useCallback, useEffect, useMemo, useRef, useState } from "react";
import { api, Refusal, sentence, take } from "../api/client";
import type { Line, OpenLine } from "../api/types";
import { differences } from "./differ";
import { dropDraft, keepDraft, readDraft } from "./draft";

const QUIET_MS = 450;
const RETRY_MS = 4000;

export type SaveState = "saved" | "typing" | "saving" | "failed" | "conflict";

export interface Conflict {
  version: number;
  theirs: Line;
  /** What both started from, where that is still known. */
  base: Line | null;
}

export interface LineEditor {
  document: Line;
  opened: OpenLine;
  save: SaveState;
  saveMessage: string;
  savedAt: Date | null;
  conflict: Conflict | null;
  edit: (change: (line: Line) => Line) => void;
  undo: () => void;
  redo: () => void;
  /** Settle a conflict with this document, made of both versions. */
  settle: (document: Line) => void;
  retry: () => void;
}

/**
 * A line being edited: every change is kept locally at once, saved after a short quiet, and a
 * save that another tab beat is held back until the person has chosen.
 */
export function useLine(first: OpenLine): LineEditor {
  const [opened, setOpened] = useState(first);
  const [document, setDocument] = useState(first.document);
  const [save, setSave] = useState<SaveState>("saved");
  const [saveMessage, setSaveMessage] = useState("");
  const [savedAt, setSavedAt] = useState<Date | null>(null);
  const [conflict, setConflict] = useState<Conflict | null>(null);
  const latest = useRef({ document: first.document, version: first.version, base: first.document as Line | null, dirty: false, held: false });
  const timer = useRef<number | undefined>(undefined);
  const queue = useRef<Promise<void>>(Promise.resolve());
  const id = first.id;

  const accept = useCallback((answer: OpenLine, replaceText: boolean) => {
    latest.current.version = answer.version;
    latest.current.base = answer.document;
    setOpened(answer);
    if (replaceText) {
      latest.current.document = answer.document;
      latest.current.dirty = false;
      setDocument(answer.document);
    }
    if (!latest.current.dirty) {
      dropDraft(id);
      setSave("saved");
      setSavedAt(new Date());
    }
  }, [id]);

  const fail = useCallback((error: unknown) => {
    if (error instanceof Refusal && error.status === 409 && error.version !== null && error.current) {
      if (differences(latest.current.document, error.current).length === 0) {
        // our own save arrived, only its answer was lost, as when the page was reloaded meanwhile
        latest.current.version = error.version;
        latest.current.dirty = false;
        dropDraft(id);
        setOpened((was) => ({ ...was, version: error.version ?? was.version, can_undo: true, can_redo: false }));
        setSave("saved");
        setSavedAt(new Date());
        return;
      }
      latest.current.held = true;
      setConflict({ version: error.version, theirs: error.current, base: latest.current.base });
      setSave("conflict");
    } else {
      setSave("failed");
    }
    setSaveMessage(sentence(error));
  }, [id]);

  const push = useCallback(async () => {
    window.clearTimeout(timer.current);
    const state = latest.current;
    if (!state.dirty || state.held) return;
    const sent = state.document;
    setSave("saving");
    try {
      const answer = await take(
        api.PUT("/api/lines/{line_id}", { params: { path: { line_id: id } }, body: { version: state.version, document: sent } }),
      );
      if (latest.current.document === sent) latest.current.dirty = false;
      accept(answer, false);
    } catch (error) {
      fail(error);
      if (latest.current.dirty && !latest.current.held) timer.current = window.setTimeout(() => void enqueue(), RETRY_MS);
    }
    function enqueue() {
      queue.current = queue.current.then(push);
      return queue.current;
    }
  }, [accept, fail, id]);

  /** Saves and undos run one after the other, so that none overtakes another's version. */
  const inTurn = useCallback((work: () => Promise<void>) => {
    queue.current = queue.current.then(work);
    return queue.current;
  }, []);

  const edit = useCallback(
    (change: (line: Line) => Line) => {
      const next = change(latest.current.document);
      if (next === latest.current.document) return;
      latest.current.document = next;
      latest.current.dirty = true;
      keepDraft(id, { version: latest.current.version, document: next, base: latest.current.base });
      setDocument(next);
      if (latest.current.held) return;
      setSave("typing");
      window.clearTimeout(timer.current);
      timer.current = window.setTimeout(() => void inTurn(push), QUIET_MS);
    },
    [id, inTurn, push],
  );

  const step = useCallback(
    (way: "undo" | "redo") =>
      void inTurn(async () => {
        await push();
        if (latest.current.dirty) return;
        try {
          const options = { params: { path: { line_id: id } }, body: { version: latest.current.version } };
          const answer = await take(
            way === "undo" ? api.POST("/api/lines/{line_id}/undo", options) : api.POST("/api/lines/{line_id}/redo", options),
          );
          accept(answer, true);
        } catch (error) {
          if (!(error instanceof Refusal && error.status === 422)) fail(error);
        }
      }),
    [accept, fail, id, inTurn, push],
  );

  const settle = useCallback(
    (settled: Line) => {
      if (!conflict) return;
      const asSaved = differences(settled, conflict.theirs).length === 0;
      latest.current.version = conflict.version;
      latest.current.base = conflict.theirs;
      latest.current.held = false;
      latest.current.document = settled;
      latest.current.dirty = !asSaved;
      setDocument(settled);
      setOpened((was) => ({ ...was, version: conflict.version, document: conflict.theirs, can_undo: true }));
      if (asSaved) {
        dropDraft(id);
        setSave("saved");
      } else {
        keepDraft(id, { version: conflict.version, document: settled, base: conflict.theirs });
        void inTurn(push);
      }
      setConflict(null);
      setSaveMessage("");
    },
    [conflict, id, inTurn, push],
  );

  // what a reload or a crash left unsaved is put back, against the version it was typed on
  useEffect(() => {
    const draft = readDraft(id);
    if (!draft) return;
    latest.current.document = draft.document;
    latest.current.version = draft.version;
    latest.current.base = draft.base ?? null;
    latest.current.dirty = true;
    setDocument(draft.document);
    void inTurn(push);
  }, [id, inTurn, push]);

  useEffect(() => {
    const leave = () => void push();
    window.addEventListener("pagehide", leave);
    return () => {
      window.removeEventListener("pagehide", leave);
      void push();
    };
  }, [push]);

  const undo = useCallback(() => step("undo"), [step]);
  const redo = useCallback(() => step("redo"), [step]);
  const retry = useCallback(() => void inTurn(push), [inTurn, push]);
  // one object for as long as nothing in it changes, so that what hangs on it is not drawn again
  return useMemo(
    () => ({ document, opened, save, saveMessage, savedAt, conflict, edit, undo, redo, settle, retry }),
    [document, opened, save, saveMessage, savedAt, conflict, edit, undo, redo, settle, retry],
  );
}
