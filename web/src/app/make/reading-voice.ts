import { Injectable, OnDestroy, signal } from '@angular/core';

/** Reads steps aloud, with a voice of this machine only: no word leaves it. */
@Injectable()
export class ReadingVoice implements OnDestroy {
  private readonly speech: SpeechSynthesis | undefined = typeof speechSynthesis === 'undefined' ? undefined : speechSynthesis;
  private readonly voice = signal<SpeechSynthesisVoice | undefined>(undefined);
  private readonly look = (): void => this.voice.set(this.ownVoice());

  readonly on = signal(false);

  constructor() {
    this.look();
    this.speech?.addEventListener?.('voiceschanged', this.look);
  }

  ngOnDestroy(): void {
    this.speech?.removeEventListener?.('voiceschanged', this.look);
    this.speech?.cancel();
  }

  /** Whether this browser has a voice of its own. */
  available(): boolean {
    return this.voice() !== undefined;
  }

  turn(on: boolean): void {
    this.on.set(on);
    if (!on) this.speech?.cancel();
  }

  /** Says some sentences, in place of what was being said. */
  say(sentences: readonly string[]): void {
    const voice = this.voice();
    if (!this.speech || !voice || !this.on()) return;
    this.speech.cancel();
    for (const sentence of sentences) {
      const words = new SpeechSynthesisUtterance(spelled(sentence));
      words.voice = voice;
      words.lang = voice.lang;
      words.rate = 0.95;
      this.speech.speak(words);
    }
  }

  private ownVoice(): SpeechSynthesisVoice | undefined {
    const own = (this.speech?.getVoices() ?? []).filter(({ localService, lang }) => localService && lang.toLowerCase().startsWith('en'));
    return own.find((voice) => voice.default) ?? own[0];
  }
}

/** Signs as they are said. */
export function spelled(sentence: string): string {
  return sentence
    .replace(/(\d) ?× ?(\d)/g, '$1 by $2')
    .replace(/ × /g, ' by ')
    .replace(/(\d) mm\b/g, '$1 millimetres')
    .replace(/(\d) cm\b/g, '$1 centimetres')
    .replace(/(\d) in\b/g, '$1 inches')
    .replace(/°/g, ' degrees')
    .replace(/\bL(\d+)\b/g, 'layer $1');
}
