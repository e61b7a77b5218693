/** Hands on what the microphone hears in blocks, each with the frame of the audio clock at which it begins. */
class Microphone extends AudioWorkletProcessor {
  constructor() {
    super();
    this.block = new Float32Array(1024);
    this.filled = 0;
    this.from = 0;
  }

  process([input]) {
    const channel = input[0];
    if (!channel) return true;
    for (let i = 0; i < channel.length; i++) {
      if (this.filled === 0) this.from = currentFrame + i;
      this.block[this.filled++] = channel[i];
      if (this.filled < this.block.length) continue;
      const samples = this.block;
      this.block = new Float32Array(samples.length);
      this.filled = 0;
      this.port.postMessage({ samples, frame: this.from }, [samples.buffer]);
    }
    return true;
  }
}

registerProcessor('microphone', Microphone);
