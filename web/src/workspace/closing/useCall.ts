import { useEffect } from "react";

const HZ = 880;
const SECONDS = 0.6;

/** Calls when a wait is over: a tone, and a mark before the page's title for as long as something is to be looked at. */
export function useCall(count: number): void {
  useEffect(() => {
    if (count === 0) return;
    const before = document.title;
    document.title = `● ${before}`;
    sound();
    return () => {
      document.title = before;
    };
  }, [count]);
}

function sound(): void {
  try {
    const audio = new AudioContext();
    const tone = audio.createOscillator();
    tone.frequency.value = HZ;
    tone.connect(audio.destination);
    tone.onended = () => void audio.close();
    tone.start();
    tone.stop(audio.currentTime + SECONDS);
  } catch {
    // a browser without sound still shows it
  }
}
