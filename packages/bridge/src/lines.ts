/** What one line of a microcontroller says: numbers by the names of their columns. */
export type Said = Map<string, number>;

const mostColumns = 8;
const longestLine = 1000;
const number = /^[+-]?(?:\d+\.?\d*|\.\d+)(?:[eE][+-]?\d+)?$/;

/**
 * Reads a line: numbers between commas, semicolons, tabs or spaces ("12.3,45"), numbers with names ("a:12.3 b:45", "a=12.3"), or
 * an object of JSON. Null for what is none of them.
 */
export function readLine(text: string): Said | null {
  const line = text.trim();
  if (line === '' || line.length > longestLine) return null;
  return line.startsWith('{') ? jsonIn(line) : (namedIn(line) ?? plainIn(line));
}

function numberIn(text: string): number | null {
  if (!number.test(text)) return null;
  const value = Number(text);
  return Number.isFinite(value) ? value : null;
}

function plainIn(line: string): Said | null {
  const parts = line.split(/\s*[,;]\s*|\s+/);
  return gathered(parts.map((part, i) => [`c${i + 1}`, part]));
}

function namedIn(line: string): Said | null {
  if (!/[:=]/.test(line)) return null;
  const parts = line
    .replace(/\s*([:=])\s*/g, '$1')
    .split(/[,;\s]+/)
    .filter((part) => part !== '');
  const pairs: [string, string][] = [];
  for (const part of parts) {
    const match = /^([A-Za-z_][\w.-]{0,30})[:=](.+)$/.exec(part);
    if (match === null) return null;
    pairs.push([match[1], match[2]]);
  }
  return gathered(pairs);
}

function jsonIn(line: string): Said | null {
  let given: unknown;
  try {
    given = JSON.parse(line);
  } catch {
    return null;
  }
  if (typeof given !== 'object' || given === null) return null;
  const said: Said = new Map();
  // Texts beside the numbers may stand there; they are no columns.
  for (const [name, value] of Object.entries(given))
    if (typeof value === 'number' && Number.isFinite(value) && said.size < mostColumns)
      said.set(name.slice(0, 30), value);
  return said.size === 0 ? null : said;
}

function gathered(pairs: readonly (readonly [string, string])[]): Said | null {
  if (pairs.length === 0 || pairs.length > mostColumns) return null;
  const said: Said = new Map();
  for (const [name, text] of pairs) {
    const value = numberIn(text);
    if (value === null || said.has(name)) return null;
    said.set(name, value);
  }
  return said;
}

/** Cuts what comes over a line into lines, however it is cut up on its way. */
export class LineCutter {
  private rest = '';
  /** What follows belongs to a line that was too long, up to its end. */
  private isSkipping = false;

  take(chunk: string): string[] {
    const lines = (this.rest + chunk).split(/\r\n|\n|\r/);
    this.rest = lines.pop() ?? '';
    if (this.isSkipping && lines.length > 0) {
      // The end of a long number is no number.
      lines.shift();
      this.isSkipping = false;
    }
    // A sender that never ends its line must not fill the memory.
    if (this.rest.length > 2 * longestLine) {
      this.rest = '';
      if (!this.isSkipping) lines.push('?'.repeat(longestLine + 1));
      this.isSkipping = true;
    }
    return lines;
  }
}
