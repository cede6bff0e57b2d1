/** Three short notes made on the spot, the last one higher. Browsers allow it only after the page has been touched once. */
let audio: AudioContext | null = null;

export function ring(): void {
  try {
    audio ??= new AudioContext();
    if (audio.state === "suspended") void audio.resume();
    const start = audio.currentTime + 0.02;
    [523.25, 523.25, 783.99].forEach((hz, i) => {
      if (!audio) return;
      const note = audio.createOscillator();
      const loud = audio.createGain();
      note.type = "triangle";
      note.frequency.value = hz;
      const at = start + i * 0.28;
      loud.gain.setValueAtTime(0.0001, at);
      loud.gain.exponentialRampToValueAtTime(0.35, at + 0.02);
      loud.gain.exponentialRampToValueAtTime(0.0001, at + 0.24);
      note.connect(loud).connect(audio.destination);
      note.start(at);
      note.stop(at + 0.26);
    });
  } catch {
    // No sound on this device: the banner still stands.
  }
}

export const SOUND_KEY = "zesty:sound";

export const soundOn = (): boolean => {
  try {
    return localStorage.getItem(SOUND_KEY) !== "off";
  } catch {
    return true;
  }
};
