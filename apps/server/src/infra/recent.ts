/** A map that holds so many at most: the one that was put in longest ago makes room for the next. */
export class Recent<Value> {
  private readonly values = new Map<string, Value>();
  constructor(private readonly most: number) {}

  get(key: string): Value | undefined {
    return this.values.get(key);
  }
  set(key: string, value: Value): void {
    // Put in anew, so that it is the latest.
    this.values.delete(key);
    this.values.set(key, value);
    if (this.values.size <= this.most) return;
    const [oldest] = this.values.keys();
    if (oldest !== undefined) this.values.delete(oldest);
  }
  delete(key: string): void {
    this.values.delete(key);
  }
}
