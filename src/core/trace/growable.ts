/** A Float64Array that grows by doubling; `done()` gives the filled part without spare room. */
export class Growable {
  private values: Float64Array<ArrayBuffer> = new Float64Array(1024);
  length = 0;

  push(value: number): void {
    if (this.length === this.values.length) {
      const larger = new Float64Array(this.length * 2);
      larger.set(this.values);
      this.values = larger;
    }
    this.values[this.length++] = value;
  }

  at(index: number): number {
    return this.values[index];
  }

  done(): Float64Array {
    return this.values.slice(0, this.length);
  }
}
