/** Sends what was typed, once: leaving a field right after Enter sends nothing again while the same text is under way. */
export class Sending {
  private under?: string;

  /** What the call gives; nothing when this very text is being sent. */
  async send<T>(text: string, call: (text: string) => Promise<T | undefined>): Promise<T | undefined> {
    if (this.under === text) return undefined;
    this.under = text;
    try {
      return await call(text);
    } finally {
      if (this.under === text) this.under = undefined;
    }
  }
}
