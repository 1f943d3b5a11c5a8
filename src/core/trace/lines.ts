/**
 * A line longer than this, in characters, is no row of a log: it is cut there, so that nothing that comes can
 * fill the memory.
 */
export const mostLineLength = 1 << 20;

/** Cuts text that comes in pieces into its lines, whatever ends them and wherever a piece ends. */
export class LineCutter {
  /** Of the line that has begun and hasn't ended. */
  private readonly begun: string[] = [];
  private length = 0;
  /** A piece ended in a carriage return: a line feed that follows belongs to it. */
  private returned = false;

  /**
   * @returns the lines that this piece of text ends, without their line ends; of one that is too long its
   *   first `mostLineLength` + 1 characters
   */
  push(text: string): string[] {
    const from = this.returned && text.startsWith("\n") ? text.slice(1) : text;
    if (text !== "") this.returned = text.endsWith("\r");
    const lines = (from.includes("\r") ? from.replace(/\r\n?/g, "\n") : from).split("\n");
    const last = lines.pop() ?? "";
    if (lines.length > 0) {
      lines[0] = this.rest(lines[0]);
      this.begun.length = this.length = 0;
    }
    if (last !== "" && this.length <= mostLineLength) {
      this.begun.push(last.slice(0, mostLineLength + 1));
      this.length += last.length;
    }
    return lines;
  }

  /** The line that has begun, with what is given at its end. */
  rest(end = ""): string {
    return this.begun.length === 0 && end.length <= mostLineLength
      ? end
      : (this.begun.join("") + end).slice(0, mostLineLength + 1);
  }
}
