/** How somebody is called: a tone, a spoken line, a vibration, a notification, each as chosen on this device. */

import type { Alarm } from "./alarms";

export interface AlarmChannels {
  tone: boolean;
  speech: boolean;
  vibration: boolean;
  notification: boolean;
}

const KEPT = "kemble-alarms";
const USUAL: AlarmChannels = { tone: true, speech: false, vibration: true, notification: false };

export const manners = (): AlarmChannels => ({ ...USUAL, ...JSON.parse(localStorage.getItem(KEPT) ?? "{}") });
export const keepManners = (next: AlarmChannels) => localStorage.setItem(KEPT, JSON.stringify(next));

let audio: AudioContext | null = null;

/** Two soft notes; three higher ones for what is past its latest. Browsers allow sound only after a press. */
export function tone(urgent = false) {
  try {
    audio ??= new AudioContext();
    const context = audio;
    (urgent ? [880, 1100, 880] : [660, 880]).forEach((pitch, i) => {
      const note = context.createOscillator();
      const level = context.createGain();
      const at = context.currentTime + i * 0.22;
      note.frequency.value = pitch;
      level.gain.setValueAtTime(0, at);
      level.gain.linearRampToValueAtTime(urgent ? 0.4 : 0.25, at + 0.02);
      level.gain.exponentialRampToValueAtTime(0.001, at + 0.6);
      note.connect(level).connect(context.destination);
      note.start(at);
      note.stop(at + 0.65);
    });
  } catch {
    // No sound here: the clocks still show it.
  }
}

export function speak(words: string) {
  if (!("speechSynthesis" in window)) return;
  const said = new SpeechSynthesisUtterance(words);
  said.lang = "en";
  window.speechSynthesis.speak(said);
}

export const vibrate = (urgent = false) => navigator.vibrate?.(urgent ? [300, 120, 300, 120, 300] : [200]);

export function notify(title: string, body: string, tag: string) {
  if (!("Notification" in window) || Notification.permission !== "granted") return;
  try {
    new Notification(title, { body, tag, requireInteraction: true });
  } catch {
    // Some browsers let only a service worker show one.
    void navigator.serviceWorker?.ready.then((worker) => worker.showNotification(title, { body, tag }));
  }
}

/** Call for one thing, in every way that is chosen. */
export function ring(alarm: Alarm, how: AlarmChannels = manners()) {
  const urgent = alarm.kind === "latest";
  if (how.tone) tone(urgent);
  if (how.speech) speak(alarm.says);
  if (how.vibration) vibrate(urgent);
  if (how.notification) notify(alarm.says, alarm.runTitle, alarm.key);
}
