/** What the audio thread gives to a processor; no library of types knows it. */
declare const currentTime: number;
declare const sampleRate: number;
declare class AudioWorkletProcessor {
  readonly port: MessagePort;
}
declare const registerProcessor: (name: string, of: new () => AudioWorkletProcessor) => void;

/** Levels that are told at once. */
const AT_ONCE = 16;

/** Tells how loud it is, block by block: nothing of the sound itself leaves the audio thread. */
class Loudness extends AudioWorkletProcessor {
  private told: { atS: number; level: number }[] = [];

  process([input]: Float32Array[][]): boolean {
    const samples = input?.[0];
    if (samples && samples.length > 0) {
      const power = samples.reduce((sum, sample) => sum + sample * sample, 0) / samples.length;
      this.told.push({
        atS: currentTime + samples.length / 2 / sampleRate,
        level: Math.sqrt(power),
      });
    }
    if (this.told.length >= AT_ONCE) {
      this.port.postMessage(this.told);
      this.told = [];
    }
    return true;
  }
}

registerProcessor('loudness', Loudness);
