let known: boolean | null = null;

/** Whether this browser can draw the stage; `?drawing` asks for the drawing in any case. */
export function hasWebGL(): boolean {
  if (new URLSearchParams(window.location.search).has("drawing")) return false;
  known ??= probe();
  return known;
}

function probe(): boolean {
  try {
    const context = document.createElement("canvas").getContext("webgl2");
    context?.getExtension("WEBGL_lose_context")?.loseContext();
    return context !== null;
  } catch {
    return false;
  }
}
