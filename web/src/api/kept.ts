/** What the browser keeps of its own accord; a full or forbidden store forgets instead of failing. */
export function kept(key: string): string | null {
  try {
    return localStorage.getItem(key);
  } catch {
    return null;
  }
}

/** Keep a text, or drop it with null. */
export function keep(key: string, text: string | null): void {
  try {
    if (text === null) localStorage.removeItem(key);
    else localStorage.setItem(key, text);
  } catch {
    // only this second net is lost
  }
}
